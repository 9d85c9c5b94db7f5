import { useSearchParams } from 'react-router'
import { addDays, addMonths, monthOf, todayIn, weekOf, weeksOf, type Day } from '../../shared/days'
import { useOrganisation } from '../queries'

export type PlanView = 'lanes' | 'month' | 'list'
export const planViews: PlanView[] = ['lanes', 'month', 'list']
export const spans = [1, 2, 6] as const
const WEEKS_OF_LIST = 4

export interface Plan {
  view: PlanView
  weeks: number
  /** The day that the address names. */
  day: Day
  today: Day
  /** What is shown: from the first day up to, not including, the end. */
  first: Day
  end: Day
  go: (change: { view?: PlanView; weeks?: number; day?: Day }) => void
  step: (direction: 1 | -1) => void
}

/** What the plan shows stands in its address, so that it can be kept, sent and gone back to. */
export function usePlanAddress(): Plan {
  const organisation = useOrganisation()
  const [parameters, setParameters] = useSearchParams()
  const today = todayIn(organisation.zone)
  const view = planViews.find((one) => one === parameters.get('view')) ?? 'lanes'
  const weeks = spans.find((one) => String(one) === parameters.get('weeks')) ?? 1
  const day = /^\d{4}-\d{2}-\d{2}$/.test(parameters.get('day') ?? '') ? (parameters.get('day') as Day) : today
  const { first, end } = spanOf(view, weeks, day, organisation.firstDayOfWeek)

  const go: Plan['go'] = (change) => {
    const next = { view, weeks, day, ...change }
    setParameters({ view: next.view, weeks: String(next.weeks), day: next.day })
  }
  const step = (direction: 1 | -1) => {
    if (view === 'month') go({ day: `${addMonths(monthOf(day), direction)}-01` })
    else go({ day: addDays(day, direction * 7 * (view === 'list' ? WEEKS_OF_LIST : weeks)) })
  }
  return { view, weeks, day, today, first, end, go, step }
}

function spanOf(view: PlanView, weeks: number, day: Day, firstDayOfWeek: number): { first: Day; end: Day } {
  if (view === 'month') {
    const shown = weeksOf(monthOf(day), firstDayOfWeek)
    const first = shown[0]?.[0] ?? day
    return { first, end: addDays(first, shown.length * 7) }
  }
  const first = weekOf(day, firstDayOfWeek)
  return { first, end: addDays(first, 7 * (view === 'list' ? WEEKS_OF_LIST : weeks)) }
}
