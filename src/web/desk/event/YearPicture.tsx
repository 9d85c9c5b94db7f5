import { addDays, addMonths, monthOf, sayDay, sayMonth, weekdayOf, type Day } from '../../shared/days'
import { useOrganisation } from '../session/queries'
import { t } from './words'

/** Twelve small months side by side, with a mark on each day that it takes place. */
export function YearPicture({ days }: { days: Day[] }) {
  const { locale, firstDayOfWeek } = useOrganisation()
  const first = days[0]
  if (!first || days.length < 2) return null
  const on = new Set(days)
  const months = Array.from({ length: 12 }, (_, index) => addMonths(monthOf(first), index))
  const last = days[days.length - 1] ?? first
  return (
    <figure className="year-picture">
      <svg
        viewBox="0 0 372 66"
        role="img"
        aria-label={t('daysFromTo', {
          count: days.length,
          from: sayMonth(monthOf(first), locale),
          to: sayMonth(monthOf(last), locale),
        })}
      >
        {months.map((month, index) => (
          <g key={month} transform={`translate(${index * 31} 0)`}>
            <text x="0" y="9">
              {sayDay(`${month}-01`, locale, { month: 'short' }).slice(0, 3)}
            </text>
            {daysOf(month).map((day) => {
              const column = (weekdayOf(day) - firstDayOfWeek + 7) % 7
              const row = Math.floor((Number(day.slice(8)) - 1 + ((weekdayOf(`${month}-01`) - firstDayOfWeek + 7) % 7)) / 7)
              return (
                <rect
                  key={day}
                  x={column * 4}
                  y={14 + row * 8}
                  width="3.2"
                  height="7"
                  className={on.has(day) ? 'is-on' : undefined}
                />
              )
            })}
          </g>
        ))}
      </svg>
    </figure>
  )
}

function daysOf(month: string): Day[] {
  const days: Day[] = []
  for (let day = `${month}-01`; monthOf(day) === month; day = addDays(day, 1)) days.push(day)
  return days
}
