import type { Day } from '../shared/days'

/** How the plan was looked at last, in this tab. */
interface LastPlan {
  search: string
  first: Day
  end: Day
}

const KEY = 'valtro.plan'
const LATELY = 'valtro.savedOn'
const FEW = 3
let saved: string | null = null

export function rememberPlan(plan: LastPlan): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(plan))
  } catch {
    // A browser that keeps nothing comes back to the plan as it is at first.
  }
}

/** The plan as it was looked at last; on that day where it was not in sight. */
export function planOn(day: Day | null | undefined): string {
  const last = read()
  const asked = new URLSearchParams(last?.search ?? '')
  if (day && !(last && last.first <= day && day < last.end)) asked.set('day', day)
  const search = asked.toString()
  return search === '' ? '/plan' : `/plan?${search}`
}

/** The calendar on which something was saved: its lane is open when the plan is shown again. */
export function rememberSavedOn(calendarId: string): void {
  saved = calendarId
  try {
    localStorage.setItem(LATELY, [calendarId, ...latelySavedOn().filter((one) => one !== calendarId)].slice(0, FEW).join(','))
  } catch {
    // A browser that keeps nothing offers all calendars alike.
  }
}

/** The calendars on which something was saved last in this browser, the latest first. */
export function latelySavedOn(): string[] {
  try {
    return localStorage.getItem(LATELY)?.split(',') ?? []
  } catch {
    return []
  }
}

export const savedOn = () => saved

function read(): LastPlan | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as LastPlan | null
    return typeof kept?.search === 'string' && kept.first < kept.end ? kept : null
  } catch {
    return null
  }
}
