import { lazy, Suspense, useState } from 'react'
import type { ChosenDate } from '../types'
import { useKeys } from '../useKeys'
import { eventsOf, useChoosing } from './choosing'
import type { ActName } from './ChosenDialog'
import { t } from './words'

const ChosenDialog = lazy(() => import('./ChosenDialog').then(({ ChosenDialog: shown }) => ({ default: shown })))

const acts: ActName[] = ['move', 'calendar', 'alsoOn', 'category', 'tags', 'place', 'out', 'cancel', 'remove', 'copy']

interface ChosenBarProps {
  /** All that is in sight and may be changed. */
  shown: ChosenDate[]
  /** Chooses all that match, on further pages too; left out where all of it is in sight. */
  addAll?: { count: number; add: () => void }
}

/** How much is chosen, and what can be done to all of it. */
export function ChosenBar({ shown, addAll }: ChosenBarProps) {
  const { dates, add, clear, stop } = useChoosing()
  const [act, setAct] = useState<ActName | null>(null)
  useKeys({ Escape: stop })
  return (
    <section className="chosen-bar" aria-label={t('chosenDates')}>
      <p aria-live="polite">
        {dates.length === 0 ? (
          t('nothingIsChosen')
        ) : (
          <>
            <b>{t('datesChosen', { count: dates.length })}</b> {t('ofEvents', { count: eventsOf(dates) })}
          </>
        )}
      </p>
      <p className="chosen-which">
        {addAll ? (
          <button type="button" className="as-link" onClick={addAll.add}>
            {t('allThatMatch', { count: addAll.count })}
          </button>
        ) : (
          <button type="button" className="as-link" onClick={() => add(shown)}>
            {t('allInSight', { count: shown.length })}
          </button>
        )}
        {dates.length > 0 && (
          <button type="button" className="as-link" onClick={clear}>
            {t('none')}
          </button>
        )}
      </p>
      <div className="chosen-acts" role="group" aria-label={t('whatToDo')}>
        {acts.map((one) => (
          <button key={one} type="button" disabled={dates.length === 0} onClick={() => setAct(one)}>
            {t(`act_${one}`)}
          </button>
        ))}
      </div>
      <button type="button" className="btn btn-quiet" onClick={stop}>
        {t('done')}
      </button>
      {act && (
        <Suspense fallback={null}>
          <ChosenDialog act={act} dates={dates} onDone={stop} onLeave={() => setAct(null)} />
        </Suspense>
      )}
    </section>
  )
}
