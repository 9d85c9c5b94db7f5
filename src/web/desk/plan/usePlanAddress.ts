import { useSearchParams } from 'react-router'
import { addDays, addMonths, monthOf, todayIn, weekOf, weeksOf, type Day } from '../../shared/days'
import { useOrganisation } from '../session/queries'

export type PlanView = 'lanes' | 'month' | 'week' | 'day' | 'list'
export const planViews: PlanView[] = ['lanes', 'month', 'week', 'day', 'list']
export const spans = [1, 2, 6] as const
const WEEKS_OF_LIST = 4

/** Only what has all of these; an empty one narrows nothing. */
export interface Filter {
  category: string
  tag: string
  place: string
  /** The name of a group of calendars, or “archived”. */
  group: string
}

export interface Plan {
  view: PlanView
  weeks: number
  /** The day that the address names. */
  day: Day
  today: Day
  /** What is shown: from the first day up to, not including, the end. */
  first: Day
  end: Day
  filter: Filter
  go: (change: { view?: PlanView; weeks?: number; day?: Day; filter?: Filter }) => void
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
  const said = (name: keyof Filter) => parameters.get(name) ?? ''
  const filter: Filter = { category: said('category'), tag: said('tag'), place: said('place'), group: said('group') }

  const go: Plan['go'] = (change) => {
    const next = { view, weeks, day, filter, ...change }
    const narrowed = Object.entries(next.filter).filter(([, value]) => value !== '')
    setParameters({ view: next.view, weeks: String(next.weeks), day: next.day, ...Object.fromEntries(narrowed) })
  }
  const step = (direction: 1 | -1) => {
    if (view === 'month') go({ day: `${addMonths(monthOf(day), direction)}-01` })
    else if (view === 'day') go({ day: addDays(day, direction) })
    else go({ day: addDays(day, direction * 7 * weeksOfView(view, weeks)) })
  }
  return { view, weeks, day, today, first, end, filter, go, step }
}

function spanOf(view: PlanView, weeks: number, day: Day, firstDayOfWeek: number): { first: Day; end: Day } {
  if (view === 'month') {
    const shown = weeksOf(monthOf(day), firstDayOfWeek)
    const first = shown[0]?.[0] ?? day
    return { first, end: addDays(first, shown.length * 7) }
  }
  if (view === 'day') return { first: day, end: addDays(day, 1) }
  const first = weekOf(day, firstDayOfWeek)
  return { first, end: addDays(first, 7 * weeksOfView(view, weeks)) }
}

function weeksOfView(view: PlanView, weeks: number): number {
  return view === 'list' ? WEEKS_OF_LIST : view === 'week' ? 1 : weeks
}
