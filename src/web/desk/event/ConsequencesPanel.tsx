import { useDeferredValue } from 'react'
import { Link } from 'react-router'
import { sayDay } from '../../shared/days'
import { firstDay, sayTime } from '../../shared/slips'
import type { Calendar, Consequences, Detail } from '../api'
import { Level } from '../Level'
import { forWhom, levelsOf } from '../openness'
import { useConsequences, useOrganisation } from '../queries'
import { requestOf, type Draft } from './draft'

/** What follows from the draft, live: its dates, who will see it, where it goes. */
export function ConsequencesPanel({ draft, calendar }: { draft: Draft; calendar: Calendar | undefined }) {
  // Only when it happens is asked about: typing a title asks nothing.
  const asked = useDeferredValue(JSON.stringify({ ...requestOf(draft, null), title: null, place: null, description: null }))
  const answer = useConsequences(JSON.parse(asked))
  return (
    <aside className="follows" aria-label="What follows from this">
      <h2>What follows from this</h2>
      <div aria-live="polite">
        {answer.error && <p className="refusal">{answer.error.message}</p>}
        {!answer.error && answer.data && <Dates consequences={answer.data} />}
      </div>
      {calendar && <WhoSees calendar={calendar} />}
      {calendar && <WhereItGoes calendar={calendar} />}
    </aside>
  )
}

function Dates({ consequences }: { consequences: Consequences }) {
  const { locale } = useOrganisation()
  const { count, dates, last } = consequences
  const more = count === null ? null : count - dates.length
  return (
    <>
      <p className="summary">
        <b>{consequences.words}.</b>
        <br />
        {count === null ? 'No end.' : count === 1 ? '1 date.' : `${count} dates.`}
      </p>
      {consequences.remarks.map((remark) => (
        <p key={remark} className="remark">
          {remark}
        </p>
      ))}
      <ol className="dates" tabIndex={0} aria-label="Dates">
        {dates.map((date, index) => (
          <DateLine
            key={date.start}
            date={date}
            allDay={consequences.allDay}
            previous={dates[index - 1]?.start}
            locale={locale}
          />
        ))}
        {more !== null && more > 1 && <li className="soft">… {more - 1} more</li>}
        {more !== null && more > 0 && last && <DateLine date={last} allDay={consequences.allDay} locale={locale} />}
        {count === null && <li className="soft">… and so on</li>}
      </ol>
    </>
  )
}

interface DateLineProps {
  date: Consequences['dates'][number]
  allDay: boolean
  previous?: string
  locale: string
}

function DateLine({ date, allDay, previous, locale }: DateLineProps) {
  const day = date.start.slice(0, 10)
  const timed = { start: date.start, end: date.end, allDay }
  const isNewYear = previous?.slice(0, 4) !== day.slice(0, 4)
  return (
    <li>
      <span className="soft">{sayDay(day, locale, { weekday: 'short' })}</span>
      <span>{sayDay(day, locale, { day: 'numeric', month: 'short', ...(isNewYear ? { year: 'numeric' } : {}) })}</span>
      <span>{sayTime(timed, firstDay(timed))}</span>
      <span className="date-remark">{date.remark}</span>
    </li>
  )
}

const seen: Record<Detail, string> = {
  nothing: 'nothing',
  times: 'only when it is busy',
  headline: 'title, time and place',
  complete: 'all of it, text and links too',
}

function WhoSees({ calendar }: { calendar: Calendar }) {
  return (
    <section>
      <h2>Who will see it</h2>
      <dl className="who">
        {[...levelsOf(calendar.disclosure)].reverse().map(({ audience, detail }) => (
          <div key={audience}>
            <dt>{audience}</dt>
            <dd>
              <Level detail={detail} word={seen[detail]} />
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}

function WhereItGoes({ calendar }: { calendar: Calendar }) {
  return (
    <section>
      <h2>Where it goes</h2>
      {forWhom(calendar.disclosure) === 'everyone' ? (
        <p>
          To the page, the embeds and the feed of <Link to={`/calendars/${calendar.id}/publishing`}>{calendar.name}</Link>, within
          seconds.
        </p>
      ) : (
        <p>
          It stays inside: {calendar.name} is not open to everyone.{' '}
          {calendar.mayManage && <Link to={`/calendars/${calendar.id}`}>Say whom it is for</Link>}
        </p>
      )}
    </section>
  )
}
