import { lazy, Suspense, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useChoosing } from '../chosen/choosing'
import type { Calendar } from '../types'
import { PlanFilters, type Offered } from './PlanFilters'
import type { Plan } from './usePlanAddress'
import { t } from './words'

const ViewsDialog = lazy(() => import('./ViewsDialog').then(({ ViewsDialog: shown }) => ({ default: shown })))

interface PlanToolsProps {
  plan: Plan
  offered: Offered
  /** Those that one of can be looked at alone. */
  calendars: Calendar[]
  mayEdit: boolean
  mayMakeSeveral: boolean
  /** Names of groups of calendars. */
  groups: string[]
}

/** A line to say an event in, and what the plan is narrowed to. */
export function PlanTools({ plan, offered, calendars, mayEdit, mayMakeSeveral, groups }: PlanToolsProps) {
  const [isOpen, setIsOpen] = useState(false)
  const [isViewing, setViewing] = useState(false)
  const choosing = useChoosing()
  const count = Object.values(plan.filter).filter((value) => value !== '').length
  return (
    <div className="plan-tools">
      {mayEdit && <LineField />}
      {mayMakeSeveral && <Link to="/events/several">{t('severalAtOnce')}</Link>}
      {mayEdit && (
        <button
          type="button"
          className="as-link"
          aria-pressed={choosing.isOn}
          onClick={choosing.isOn ? choosing.stop : choosing.start}
        >
          {choosing.isOn ? t('choosingDates') : t('chooseDates')}
        </button>
      )}
      <button type="button" className="as-link" onClick={() => setViewing(true)}>
        {t('views')}
      </button>
      {isViewing && (
        <Suspense fallback={null}>
          <ViewsDialog onHide={() => setViewing(false)} />
        </Suspense>
      )}
      <span className="stretch" />
      <button type="button" className="narrow-toggle" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
        {count === 0 ? t('narrow') : t('narrowedBy', { count })}
      </button>
      <div className={isOpen ? 'narrowing is-open' : 'narrowing'}>
        <PlanFilters plan={plan} offered={offered} calendars={calendars} groups={groups} />
      </div>
    </div>
  )
}

function LineField() {
  const [text, setText] = useState('')
  const navigate = useNavigate()
  const read = (event: React.FormEvent) => {
    event.preventDefault()
    if (text.trim() !== '') void navigate(`/events/new?line=${encodeURIComponent(text.trim())}`)
  }
  return (
    <form className="line-form" onSubmit={read} role="search" aria-label={t('newEventInOneLine')}>
      <input
        className="form-control"
        aria-label={t('sayAnEventInOne')}
        placeholder={t('lineExample')}
        value={text}
        maxLength={500}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="btn btn-outline-ink" disabled={text.trim() === ''}>
        {t('readIt')}
      </button>
    </form>
  )
}
