import type { ReactNode } from 'react'
import { addDays, addMonths, monthOf, sayDay, saySpan, type Day } from '../../shared/days'
import { useYear } from './queries'
import { useOrganisation } from '../session/queries'
import type { Year } from '../types'
import { useIsNarrow } from '../useIsNarrow'
import { yearOf, type Plan } from './usePlanAddress'
import { t } from './words'

type Week = Year['weeks'][number]

/** The year's weeks, and how full each is: press one to go there. Where there is no room to press a week, months are pressed. */
export function YearRibbon({ plan }: { plan: Plan }) {
  const { yearStartsIn } = useOrganisation()
  const isNarrow = useIsNarrow()
  const year = useYear(plan.day).data
  if (!year) return <div className="ribbon" aria-hidden="true" />
  const begins = yearOf(plan.day, yearStartsIn).first
  return (
    <nav className="ribbon" aria-label={t(isNarrow ? 'monthsOfTheYear' : 'weeksOfTheYear')}>
      <OtherYear plan={plan} first={`${addMonths(monthOf(begins), -12)}-01`} />
      {isNarrow ? <Months plan={plan} weeks={year.weeks} /> : <Weeks plan={plan} weeks={year.weeks} />}
      <OtherYear plan={plan} first={`${addMonths(monthOf(begins), 12)}-01`} isLater />
    </nav>
  )
}

interface OfYear {
  plan: Plan
  weeks: Week[]
}

function Weeks({ plan, weeks }: OfYear) {
  const { locale } = useOrganisation()
  const room = roomForBreaks(weeks.map((week) => week.closed))
  const bars = barsOf(plan, weeks)
  const stop = weeks.findIndex((week) => isShown(plan, week))
  return weeks.map((week, index) => {
    const dates = [t('dates', { count: week.dates }), week.term, week.closed, ...week.overloads].filter(Boolean).join(', ')
    return (
      <button
        key={week.first}
        type="button"
        className={`ribbon-stop ${bars[index]?.className}`}
        tabIndex={index === Math.max(stop, 0) ? 0 : -1}
        aria-current={isShown(plan, week) ? 'true' : undefined}
        aria-label={`${saySpan(week.first, addDays(week.first, 6), locale)}, ${dates}`}
        title={`${sayDay(week.first, locale, { day: 'numeric', month: 'short' })}: ${dates}`}
        onClick={() => plan.go({ day: holdsToday(plan, week) ? plan.today : week.first })}
        onKeyDown={moveAlong}
      >
        {startsMonth(week.first) && index < weeks.length - 2 && (
          <span className="ribbon-month">{sayDay(addDays(week.first, 6), locale, { month: 'short' })}</span>
        )}
        {(room.get(index) ?? 0) >= LEAST_ROOM && (
          <span className="ribbon-break" style={{ maxWidth: `${(room.get(index) ?? 0) * 100}%` }}>
            {week.closed}
          </span>
        )}
        {bars[index]?.bar}
      </button>
    )
  })
}

/** Each with the weeks of which it holds the most days. */
function Months({ plan, weeks }: OfYear) {
  const { locale } = useOrganisation()
  const bars = barsOf(plan, weeks)
  const months = [...new Set(weeks.map(monthOfWeek))]
  const shown = months.indexOf(weeks.filter((week) => isShown(plan, week)).map(monthOfWeek)[0] ?? '')
  return months.map((month, place) => {
    const own = weeks.map((week, index) => ({ week, ...bars[index] })).filter(({ week }) => monthOfWeek(week) === month)
    const dates = own.reduce((sum, { week }) => sum + week.dates, 0)
    const overloads = own.flatMap(({ week }) => week.overloads)
    const first: Day = `${month}-01`
    return (
      <button
        key={month}
        type="button"
        className="ribbon-stop ribbon-of-month"
        style={{ flexGrow: own.length }}
        tabIndex={place === Math.max(shown, 0) ? 0 : -1}
        aria-current={place === shown ? 'true' : undefined}
        aria-label={[sayDay(first, locale, { month: 'long', year: 'numeric' }), t('dates', { count: dates }), ...overloads].join(
          ', ',
        )}
        onClick={() => plan.go({ day: monthOf(plan.today) === month ? plan.today : first })}
        onKeyDown={moveAlong}
      >
        <span className="ribbon-month">{sayDay(first, locale, { month: 'narrow' })}</span>
        {own.map(({ week, className, bar }) => (
          <span key={week.first} className={className}>
            {bar}
          </span>
        ))}
      </button>
    )
  })
}

const monthOfWeek = (week: Week) => monthOf(addDays(week.first, 3))
const isShown = (plan: Plan, week: Week) => week.first < plan.end && addDays(week.first, 7) > plan.first
const holdsToday = (plan: Plan, week: Week) => week.first <= plan.today && plan.today < addDays(week.first, 7)

/** How each week looks. */
function barsOf(plan: Plan, weeks: Week[]): { className: string; bar: ReactNode }[] {
  const fullest = Math.max(1, ...weeks.map((week) => week.dates))
  const first = weeks.findIndex((week) => isShown(plan, week))
  const last = weeks.findLastIndex((week) => isShown(plan, week))
  return weeks.map((week, index) => ({
    className: [
      'ribbon-week',
      isShown(plan, week) && 'is-shown',
      index === first && 'is-first',
      index === last && 'is-last',
      holdsToday(plan, week) && 'is-now',
      week.term && 'is-term',
      week.closedDays >= 3 && 'is-closed',
      week.closedDays > 0 && 'has-closed',
    ]
      .filter(Boolean)
      .join(' '),
    bar: (
      <>
        <svg viewBox="0 0 10 40" preserveAspectRatio="none" aria-hidden="true">
          <rect x="0" y={40 - (38 * week.dates) / fullest} width="10" height={(38 * week.dates) / fullest} />
        </svg>
        {week.overloads.length > 0 && <span className="ribbon-overload" aria-hidden="true" />}
      </>
    ),
  }))
}

function moveAlong(event: React.KeyboardEvent<HTMLButtonElement>) {
  const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!step) return
  event.preventDefault()
  const buttons = [...(event.currentTarget.parentElement?.querySelectorAll<HTMLElement>('.ribbon-stop') ?? [])]
  buttons[buttons.indexOf(event.currentTarget) + step]?.focus()
}

/** "2025–26", where years begin in autumn. */
function OtherYear({ plan, first, isLater = false }: { plan: Plan; first: Day; isLater?: boolean }) {
  const last = addDays(`${addMonths(monthOf(first), 12)}-01`, -1)
  const year = first.slice(0, 4) === last.slice(0, 4) ? first.slice(0, 4) : `${first.slice(0, 4)}–${last.slice(2, 4)}`
  return (
    <button
      type="button"
      className="ribbon-year"
      aria-label={t(isLater ? 'yearAfter' : 'yearBefore', { year })}
      onClick={() => plan.go({ day: `${addMonths(monthOf(plan.day), isLater ? 12 : -12)}-01` })}
    >
      <span aria-hidden="true">{isLater ? '›' : '‹'}</span> {year}
    </button>
  )
}

function startsMonth(week: Day): boolean {
  return week.endsWith('-01') || monthOf(week) !== monthOf(addDays(week, 6))
}

/** A name has no room in less. */
const LEAST_ROOM = 2

/** Where breaks begin, and how many weeks wide their names can be without running into the next. */
export function roomForBreaks(closed: (string | null)[]): Map<number, number> {
  const begins = closed.flatMap((name, week) => (name !== null && name !== closed[week - 1] ? [week] : []))
  return new Map(begins.map((week, place) => [week, (begins[place + 1] ?? closed.length) - week]))
}
