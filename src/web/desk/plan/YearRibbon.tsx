import { addDays, addMonths, monthOf, sayDay, saySpan, type Day } from '../../shared/days'
import { useYear } from './queries'
import { useOrganisation } from '../session/queries'
import { yearOf, type Plan } from './usePlanAddress'
import { t } from './words'

/** The year's weeks, and how full each is: press one to go there. */
export function YearRibbon({ plan }: { plan: Plan }) {
  const { locale, yearStartsIn } = useOrganisation()
  const year = useYear(plan.day).data
  if (!year) return <div className="ribbon" aria-hidden="true" />
  const fullest = Math.max(1, ...year.weeks.map((week) => week.dates))
  const move = (event: React.KeyboardEvent<HTMLButtonElement>) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
    if (!step) return
    event.preventDefault()
    const buttons = [...(event.currentTarget.parentElement?.querySelectorAll<HTMLElement>('.ribbon-week') ?? [])]
    buttons[buttons.indexOf(event.currentTarget as HTMLElement) + step]?.focus()
  }
  const room = roomForBreaks(year.weeks.map((week) => week.closed))
  const isShown = (week: Day) => week < plan.end && addDays(week, 7) > plan.first
  const stop = year.weeks.findIndex((week) => isShown(week.first))
  const lastStop = year.weeks.findLastIndex((week) => isShown(week.first))
  const classesOf = (index: number, holdsToday: boolean) =>
    [
      'ribbon-week',
      stop >= 0 && index >= stop && index <= lastStop && 'is-shown',
      index === stop && 'is-first',
      index === lastStop && 'is-last',
      holdsToday && 'is-now',
      year.weeks[index]?.term && 'is-term',
      (year.weeks[index]?.closedDays ?? 0) >= 3 && 'is-closed',
      (year.weeks[index]?.closedDays ?? 0) > 0 && 'has-closed',
    ]
      .filter(Boolean)
      .join(' ')
  const begins = yearOf(plan.day, yearStartsIn).first
  return (
    <nav className="ribbon" aria-label={t('weeksOfTheYear')}>
      <OtherYear plan={plan} first={`${addMonths(monthOf(begins), -12)}-01`} />
      {year.weeks.map((week, index) => {
        const dates = [t('dates', { count: week.dates }), week.term, week.closed].filter(Boolean).join(', ')
        const holdsToday = week.first <= plan.today && plan.today < addDays(week.first, 7)
        return (
          <button
            key={week.first}
            type="button"
            className={classesOf(index, holdsToday)}
            tabIndex={index === Math.max(stop, 0) ? 0 : -1}
            aria-current={isShown(week.first) ? 'true' : undefined}
            aria-label={`${saySpan(week.first, addDays(week.first, 6), locale)}, ${dates}`}
            title={`${sayDay(week.first, locale, { day: 'numeric', month: 'short' })}: ${dates}`}
            onClick={() => plan.go({ day: holdsToday ? plan.today : week.first })}
            onKeyDown={move}
          >
            {startsMonth(week.first) && index < year.weeks.length - 2 && (
              <span className="ribbon-month">{sayDay(addDays(week.first, 6), locale, { month: 'short' })}</span>
            )}
            {(room.get(index) ?? 0) >= LEAST_ROOM && (
              <span className="ribbon-break" style={{ maxWidth: `${(room.get(index) ?? 0) * 100}%` }}>
                {week.closed}
              </span>
            )}
            <svg viewBox="0 0 10 40" preserveAspectRatio="none" aria-hidden="true">
              <rect x="0" y={40 - (38 * week.dates) / fullest} width="10" height={(38 * week.dates) / fullest} />
            </svg>
          </button>
        )
      })}
      <OtherYear plan={plan} first={`${addMonths(monthOf(begins), 12)}-01`} isLater />
    </nav>
  )
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
