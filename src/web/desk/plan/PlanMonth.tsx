import { useNavigate } from 'react-router'
import { isWeekend, monthOf, sayDay, weeksOf, type Day } from '../../shared/days'
import { touches } from '../../shared/slips'
import { useArrowKeys } from '../../shared/useArrowKeys'
import type { Calendar, DayInfo, Occurrence } from '../types'
import { useOrganisation } from '../session/queries'
import { useDropOn } from './moving'
import { SlipLine, shownAs } from './Slip'
import type { Plan } from './usePlanAddress'
import { t } from './words'

/** As many lines of 24 px, the least that a finger hits, as five or six weeks leave room for at 1280 by 800. */
const linesOf = (weeks: number) => (weeks > 5 ? 3 : 4)

interface PlanMonthProps {
  plan: Plan
  days: DayInfo[]
  calendars: Calendar[]
  occurrences: Occurrence[]
}

/** A month on one screen: six calendars need no scrolling at 1280 by 800. */
export function PlanMonth({ plan, days, calendars, occurrences }: PlanMonthProps) {
  const { locale, firstDayOfWeek } = useOrganisation()
  const arrows = useArrowKeys()
  const weeks = weeksOf(monthOf(plan.day), firstDayOfWeek)
  const calendarOf = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  const mayEdit = calendars.some((calendar) => calendar.mayContribute)
  const closedOn = new Map(days.map((day) => [day.day, day.closed]))
  return (
    <table ref={arrows} className={`plan-month plan-month-${weeks.length}`}>
      <caption className="visually-hidden">{t('allCalendarsByDay')}</caption>
      <thead>
        <tr>
          {weeks[0]?.map((day) => (
            <th key={day} scope="col" className={isWeekend(day) ? 'is-weekend' : undefined}>
              {sayDay(day, locale, { weekday: 'short' })}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {weeks.map((week) => (
          <tr key={week[0]}>
            {week.map((day) => (
              <MonthCell
                key={day}
                day={day}
                plan={plan}
                closed={closedOn.get(day) ?? null}
                mayEdit={mayEdit}
                linesShown={linesOf(weeks.length)}
                calendarOf={calendarOf}
                onDay={occurrences.filter((occurrence) => touches(occurrence, day) && shownAs(occurrence, calendarOf))}
              />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

interface MonthCellProps {
  day: Day
  plan: Plan
  closed: string | null
  mayEdit: boolean
  linesShown: number
  calendarOf: Map<string, Calendar>
  onDay: Occurrence[]
}

function MonthCell({ day, plan, closed, mayEdit, linesShown, calendarOf, onDay }: MonthCellProps) {
  const { locale } = useOrganisation()
  const navigate = useNavigate()
  const drop = useDropOn(day, null)
  const shown = onDay.length > linesShown ? onDay.slice(0, linesShown - 1) : onDay
  const names = [
    isWeekend(day) && 'is-weekend',
    monthOf(day) !== monthOf(plan.day) && 'is-outside',
    day === plan.today && 'is-today',
    closed && 'is-closed',
  ]
  const name = sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long' })
  return (
    <td
      className={names.filter(Boolean).join(' ')}
      aria-current={day === plan.today ? 'date' : undefined}
      title={closed ?? undefined}
      {...drop}
    >
      {mayEdit && (
        <button
          type="button"
          data-cell
          className="cell-free"
          aria-label={t('newEventName', { name })}
          onClick={() => navigate(`/events/new?day=${day}`)}
        >
          <span aria-hidden="true">+</span>
        </button>
      )}
      <span className="day-number">{Number(day.slice(8))}</span>
      <div className="day-lines">
        {shown.map((occurrence) => {
          const calendar = shownAs(occurrence, calendarOf)
          return (
            calendar && (
              <SlipLine
                key={occurrence.eventId + occurrence.recurrenceId}
                occurrence={occurrence}
                calendar={calendar}
                day={day}
              />
            )
          )
        })}
        {shown.length < onDay.length && (
          <button
            type="button"
            className="more"
            aria-label={t('allCountOnName', { count: onDay.length, name })}
            onClick={() => plan.go({ view: 'day', day })}
          >
            {t('countMore', { count: onDay.length - shown.length })}
          </button>
        )}
      </div>
    </td>
  )
}
