import { addDays, daysBetween, monthOf, sayDay, type Day } from '../../shared/days'
import type { YearPlanRequest } from '../types'
import { useOrganisation } from '../session/queries'

/** A month of fewer days at the end of the strip has no room for its name. */
const DAYS_OF_A_NAME = 20

/** The year as a strip: terms as bars, breaks hatched over them. */
export function YearStrip({ plan }: { plan: YearPlanRequest }) {
  const { locale } = useOrganisation()
  if (!plan.first || !plan.last || plan.last < plan.first) return null
  const { first, last } = plan
  const length = daysBetween(first, last) + 1
  const left = (day: Day) => `${(Math.max(0, Math.min(length, daysBetween(first, day))) / length) * 100}%`
  const style = (from: Day, to: Day) => ({
    left: left(from),
    width: `${(Math.max(0, Math.min(length, daysBetween(first, addDays(to, 1))) - Math.max(0, daysBetween(first, from))) / length) * 100}%`,
  })
  const months: Day[] = []
  for (let day = first; day <= last && months.length < 20; day = addDays(`${monthOf(day)}-28`, 4).slice(0, 8) + '01')
    months.push(day)
  return (
    <div className="year-strip" aria-hidden="true">
      {months.map((day, index) => (
        <span key={day} className="strip-month" style={{ left: left(day) }}>
          {daysBetween(day, months[index + 1] ?? last) >= DAYS_OF_A_NAME && (
            <>
              <span className="strip-wide">{sayDay(day, locale, { month: 'short' })}</span>
              <span className="strip-narrow">{sayDay(day, locale, { month: 'narrow' })}</span>
            </>
          )}
        </span>
      ))}
      {plan.terms.map((term, index) => (
        <span key={index} className="strip-term" style={style(term.first, term.last)} />
      ))}
      {plan.breaks.map((span, index) => (
        <span key={index} className="strip-break" style={style(span.first, span.last)} title={span.name} />
      ))}
      {plan.terms.map((term, index) => (
        <span key={index} className="strip-name" style={style(term.first, term.last)} title={term.name}>
          <span>{term.name}</span>
        </span>
      ))}
    </div>
  )
}
