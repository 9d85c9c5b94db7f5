import { useNavigate } from 'react-router'
import { addDays, isWeekend, monthOf, sayDay, weeksOf, type Day } from '../../shared/days'
import { touches, touchesAny } from '../../shared/slips'
import { useArrowKeys } from '../../shared/useArrowKeys'
import type { Calendar, DayInfo, Occurrence } from '../types'
import { useOrganisation } from '../session/queries'
import { useDropOn } from './moving'
import { barsOf, linesOn, type Bar } from './bars'
import { BarSlip, SlipLine, shownAs } from './Slip'
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
        {weeks.map((week) => {
          const ofWeek = occurrences.filter(
            (one) => touchesAny(one, week[0] ?? '', addDays(week[6] ?? '', 1)) && shownAs(one, calendarOf),
          )
          const { rows } = barsOf(ofWeek, week)
          // The first line is beside the day's number, and what there is no room for is counted.
          const bars = rows.slice(0, linesOf(weeks.length) - 2)
          return (
            <tr key={week[0]}>
              {week.map((day, column) => (
                <MonthCell
                  key={day}
                  day={day}
                  plan={plan}
                  closed={closedOn.get(day) ?? null}
                  mayEdit={mayEdit}
                  linesShown={linesOf(weeks.length)}
                  calendarOf={calendarOf}
                  bars={bars.map((row) => row.find((bar) => bar.from <= column && column <= bar.to) ?? null)}
                  onDay={ofWeek.filter((occurrence) => touches(occurrence, day))}
                />
              ))}
            </tr>
          )
        })}
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
  /** Those that lie across the day, each in its row. */
  bars: (Bar | null)[]
  onDay: Occurrence[]
}

function MonthCell({ day, plan, closed, mayEdit, linesShown, calendarOf, bars, onDay }: MonthCellProps) {
  const { locale } = useOrganisation()
  const navigate = useNavigate()
  const drop = useDropOn(day, null)
  const { lines, left } = linesOn(onDay, bars, linesShown)
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
      data-day={day}
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
        {lines.map((line, index) => {
          if (line === null) return <span key={index} className="slip-gap" />
          if ('from' in line && line.day !== day)
            return (
              <span key={index} className="slip-gap">
                <span className="visually-hidden">{t('titleGoesOn', { title: line.occurrence.title })}</span>
              </span>
            )
          const occurrence = 'from' in line ? line.occurrence : line
          const calendar = shownAs(occurrence, calendarOf)
          if (!calendar) return null
          if ('from' in line)
            return (
              <span key={index} className={`slip-gap across-${line.to - line.from + 1}`}>
                <BarSlip bar={line} calendar={calendar} withPlate />
              </span>
            )
          return (
            <SlipLine key={occurrence.eventId + occurrence.recurrenceId} occurrence={occurrence} calendar={calendar} day={day} />
          )
        })}
        {left > 0 && (
          <button
            type="button"
            className="more"
            aria-label={t('allCountOnName', { count: onDay.length, name })}
            onClick={() => plan.go({ view: 'day', day })}
          >
            {t('countMore', { count: left })}
          </button>
        )}
      </div>
    </td>
  )
}
