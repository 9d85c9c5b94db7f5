import { useMemo } from 'react'
import { useSearchParams, type SetURLSearchParams } from 'react-router'
import { addDays, addMonths, monthOf, todayIn, weekOf, weeksOf, type Day } from '../../shared/days'
import { useOrganisation } from '../session/queries'
import type { Organisation } from '../types'

export type PlanView = 'lanes' | 'month' | 'week' | 'day' | 'list'
export const planViews: PlanView[] = ['lanes', 'month', 'week', 'day', 'list']
export const spans = [1, 2, 6] as const
const WEEKS_OF_LIST = 4
/** By what the list of a year is sorted. */
export const orders = ['time', 'calendar', 'title', 'place'] as const
export type Order = (typeof orders)[number]

/** Only what has all of these; an empty one narrows nothing. */
export interface Filter {
  category: string
  tag: string
  place: string
  /** A name, or “me”. */
  person: string
  /** The name of a group of calendars, or “archived”. */
  group: string
  /** The plate of one calendar. */
  calendar: string
  /** Words that an event says. They are looked for in the list of a year only. */
  words: string
}

export const noFilter: Filter = { category: '', tag: '', place: '', person: '', group: '', calendar: '', words: '' }

export interface Plan {
  view: PlanView
  weeks: number
  /** The list is of a whole year, by pages. */
  isYear: boolean
  /** The day that the address names. */
  day: Day
  today: Day
  /** What is shown: from the first day up to, not including, the end. */
  first: Day
  end: Day
  filter: Filter
  /** Of the list of a year, as its page, from 1 on. */
  order: Order
  page: number
  go: (change: {
    view?: PlanView
    weeks?: number
    isYear?: boolean
    day?: Day
    filter?: Filter
    order?: Order
    page?: number
  }) => void
  step: (direction: 1 | -1) => void
}

/** What the plan shows stands in its address, so that it can be kept, sent and gone back to. */
export function usePlanAddress(): Plan {
  const organisation = useOrganisation()
  const [parameters, setParameters] = useSearchParams()
  const today = todayIn(organisation.zone)
  // The same while the address is: what is drawn of it need not be drawn again.
  return useMemo(() => planAt(parameters, setParameters, today, organisation), [parameters, setParameters, today, organisation])
}

function planAt(parameters: URLSearchParams, setParameters: SetURLSearchParams, today: Day, organisation: Organisation): Plan {
  const view = planViews.find((one) => one === parameters.get('view')) ?? 'lanes'
  const weeks = spans.find((one) => String(one) === parameters.get('weeks')) ?? 1
  const day = /^\d{4}-\d{2}-\d{2}$/.test(parameters.get('day') ?? '') ? (parameters.get('day') as Day) : today
  const isYear = view === 'list' && parameters.get('span') === 'year'
  const { first, end } = isYear ? yearOf(day, organisation.yearStartsIn) : spanOf(view, weeks, day, organisation.firstDayOfWeek)
  const filter = { ...noFilter }
  for (const name of Object.keys(noFilter) as (keyof Filter)[]) filter[name] = parameters.get(name) ?? ''

  const order = orders.find((one) => one === parameters.get('order')) ?? 'time'
  const page = Number(parameters.get('page') ?? '1') || 1

  const go: Plan['go'] = (change) => {
    // What is narrowed or sorted in another way has other pages.
    const next = { view, weeks, isYear, day, filter, order, page: 1, ...change }
    const isOfYear = next.isYear && next.view === 'list'
    const narrowed = Object.entries({ ...next.filter, words: isOfYear ? next.filter.words : '' })
    setParameters({
      view: next.view,
      weeks: String(next.weeks),
      ...(isOfYear ? { span: 'year' } : {}),
      ...(isOfYear && next.order !== 'time' ? { order: next.order } : {}),
      ...(isOfYear && next.page > 1 ? { page: String(next.page) } : {}),
      day: next.day,
      ...Object.fromEntries(narrowed.filter(([, value]) => value !== '')),
    })
  }
  const step = (direction: 1 | -1) => {
    if (isYear) go({ day: `${addMonths(monthOf(first), 12 * direction)}-01` })
    else if (view === 'month') go({ day: `${addMonths(monthOf(day), direction)}-01` })
    else if (view === 'day') go({ day: addDays(day, direction) })
    else go({ day: addDays(day, direction * 7 * weeksOfView(view, weeks)) })
  }
  return { view, weeks, isYear, day, today, first, end, filter, order, page, go, step }
}

/** The organisation's year that holds a day. */
export function yearOf(day: Day, startsIn: number): { first: Day; end: Day } {
  const here: Day = `${day.slice(0, 4)}-${String(startsIn).padStart(2, '0')}-01`
  const first: Day = here <= day ? here : `${addMonths(monthOf(here), -12)}-01`
  return { first, end: `${addMonths(monthOf(first), 12)}-01` }
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
