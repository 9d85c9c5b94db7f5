import type { UseQueryResult } from '@tanstack/react-query'
import type { Day } from '../../shared/days'
import type { Calendar, Consequences, Destinations, WhoSees as WhoSeesLine } from '../types'
import { Level } from '../Level'
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
  /** Its home and where it is placed. */
  shownOn: Calendar[]
  /** The day of the series that was opened. */
  seen: Day | null
}

/** What follows from the draft, live: its dates, who will see it, where it goes. */
export function ConsequencesPanel({ draft, set, answer, destinations, isNew, shownOn, seen }: ConsequencesPanelProps) {
  const recurs = draft.pattern !== 'once' || draft.extra.length > 0
  const toggle = (date: ConsequenceDate) => {
    const day = date.recurrenceId.slice(0, 10)
    if (date.kind === 'added') set({ extra: draft.extra.filter((one) => one !== day) })
    else if (date.kind === 'removed') set({ removed: draft.removed.filter((one) => one.slice(0, 10) !== day) })
    else set({ removed: [...draft.removed, date.recurrenceId] })
  }
  const add = (day: string) => !draft.extra.includes(day) && set({ extra: [...draft.extra, day].sort() })
  return (
    <aside className="follows" aria-label={t('whatFollowsFromThis')}>
      <h2>{t('whatFollowsFromThis')}</h2>
      <div aria-live="polite">
        {answer.error && <p className="refusal">{answer.error.message}</p>}
        {!answer.error && answer.data && <Summary consequences={answer.data} />}
      </div>
      {!answer.error && answer.data && (
        <DateList consequences={answer.data} seen={seen} onToggle={recurs ? toggle : null} onAdd={add} />
      )}
      {answer.data && <WhoSees lines={answer.data.whoSees} />}
      {destinations && <WhereItGoes destinations={destinations} isNew={isNew} shownOn={shownOn} />}
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
        {count === null ? t('noEnd') : t('dates', { count })}
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
