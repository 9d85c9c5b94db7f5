import type { UseQueryResult } from '@tanstack/react-query'
import { addDays, daysBetween, sayDay, type Day } from '../../shared/days'
import type { Calendar, Consequences, Destinations, WhoSees as WhoSeesLine } from '../types'
import { Level } from '../Level'
import { useOrganisation } from '../session/queries'
import { audiences, isMore } from '../openness'
import { DateList, type ConsequenceDate } from './DateList'
import type { Draft } from './draft'
import { WhereItGoes } from './WhereItGoes'
import { YearPicture } from './YearPicture'
import { t } from './words'

interface ConsequencesPanelProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  answer: UseQueryResult<Consequences>
  destinations: Destinations | undefined
  /** Nobody has it yet. */
  isNew: boolean
  /** Its source says when it is. */
  isFollowed: boolean
  /** Its home and where it is placed. */
  shownOn: Calendar[]
  /** The day of the series that was opened. */
  seen: Day | null
  /** The first day of the series that is changed. */
  seriesStart: Day | null
  /** Where each edition says whether it has this date; null of a new event. */
  traced: string | null
}

/** What follows from the draft, live: its dates, who will see it, where it goes. */
export function ConsequencesPanel({
  draft,
  set,
  answer,
  destinations,
  isNew,
  isFollowed,
  shownOn,
  seen,
  seriesStart,
  traced,
}: ConsequencesPanelProps) {
  const recurs = draft.pattern !== 'once' || draft.extra.length > 0
  const toggle = (date: ConsequenceDate) => {
    const day = date.recurrenceId.slice(0, 10)
    if (date.kind === 'added') set({ extra: draft.extra.filter((one) => one !== day) })
    else if (date.kind === 'removed') set({ removed: draft.removed.filter((one) => one.slice(0, 10) !== day) })
    else set({ removed: [...draft.removed, date.recurrenceId] })
  }
  const begin = (day: Day) =>
    set({
      date: day,
      endDate: draft.endDate && draft.date ? addDays(draft.endDate, daysBetween(draft.date, day)) : draft.endDate,
    })
  const add = (day: string) => !draft.extra.includes(day) && set({ extra: [...draft.extra, day].sort() })
  return (
    <aside className="follows" aria-label={t('whatFollowsFromThis')}>
      <h2>{t('whatFollowsFromThis')}</h2>
      {shownOn.length === 0 && <p className="soft">{t('whenItsCalendarIsChosen')}</p>}
      <div aria-live="polite">
        {answer.error && <p className="refusal">{answer.error.message}</p>}
        {!answer.error && answer.data && (
          <Summary consequences={answer.data} begin={isNew || draft.date === seriesStart ? begin : null} />
        )}
      </div>
      {!answer.error && answer.data && (
        <DateList
          consequences={answer.data}
          seen={seen}
          onToggle={recurs && !isFollowed ? toggle : null}
          onAdd={isFollowed ? null : add}
        />
      )}
      {answer.data && <WhoSees lines={answer.data.whoSees} />}
      {destinations && <WhereItGoes destinations={destinations} isNew={isNew} shownOn={shownOn} traced={traced} />}
    </aside>
  )
}

/** @param begin Moves the first day; null where it is not the first that is seen. */
function Summary({ consequences, begin }: { consequences: Consequences; begin: ((day: Day) => void) | null }) {
  const { count, begins } = consequences
  const { locale } = useOrganisation()
  return (
    <>
      <p className="summary">
        <b>{consequences.words}.</b>
        <br />
        {count === null ? t('noEnd') : t('dates', { count })}
      </p>
      {consequences.remarks.map((remark) => (
        <p key={remark} className="remark">
          {remark}
        </p>
      ))}
      {begins && begin && (
        <p>
          <button type="button" className="btn btn-outline-ink" onClick={() => begin(begins)}>
            {t('beginOn', { day: sayDay(begins, locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }) })}
          </button>
        </p>
      )}
      <YearPicture days={consequences.days} />
    </>
  )
}

/** Who will see what, level by level, in one line each. */
function WhoSees({ lines }: { lines: WhoSeesLine[] }) {
  return (
    <section>
      <h2>{t('whoWillSeeIt')}</h2>
      <dl className="who">
        {lines.map(({ audience, detail, was, sentence }) => (
          <div key={audience}>
            <dt>{audiences.find((one) => one.key === audience)?.name}</dt>
            <dd>
              <Level detail={detail} word={sentence} />
              {isMore(detail, was) && was !== 'nothing' && <span className="newly"> {t('moreThanNow')}</span>}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
