import type { UseQueryResult } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Day } from '../../shared/days'
import type { Calendar, Consequences, Detail } from '../api'
import { Level } from '../Level'
import { forWhom, levelsOf } from '../openness'
import { DateList, type ConsequenceDate } from './DateList'
import type { Draft } from './draft'
import { YearPicture } from './YearPicture'

interface ConsequencesPanelProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  answer: UseQueryResult<Consequences>
  calendar: Calendar | undefined
  /** The day of the series that was opened. */
  seen: Day | null
}

/** What follows from the draft, live: its dates, who will see it, where it goes. */
export function ConsequencesPanel({ draft, set, answer, calendar, seen }: ConsequencesPanelProps) {
  const recurs = draft.pattern !== 'once' || draft.extra.length > 0
  const toggle = (date: ConsequenceDate) => {
    const day = date.recurrenceId.slice(0, 10)
    if (date.kind === 'added') set({ extra: draft.extra.filter((one) => one !== day) })
    else if (date.kind === 'removed') set({ removed: draft.removed.filter((one) => one.slice(0, 10) !== day) })
    else set({ removed: [...draft.removed, date.recurrenceId] })
  }
  const add = (day: string) => !draft.extra.includes(day) && set({ extra: [...draft.extra, day].sort() })
  return (
    <aside className="follows" aria-label="What follows from this">
      <h2>What follows from this</h2>
      <div aria-live="polite">
        {answer.error && <p className="refusal">{answer.error.message}</p>}
        {!answer.error && answer.data && <Summary consequences={answer.data} />}
      </div>
      {!answer.error && answer.data && (
        <DateList consequences={answer.data} seen={seen} onToggle={recurs ? toggle : null} onAdd={add} />
      )}
      {calendar && <WhoSees calendar={calendar} />}
      {calendar && <WhereItGoes calendar={calendar} />}
    </aside>
  )
}

function Summary({ consequences }: { consequences: Consequences }) {
  const { count } = consequences
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
      <YearPicture days={consequences.days} />
    </>
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
