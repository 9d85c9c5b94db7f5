import { daysBetween, daysFrom, sayDay } from '../../shared/days'
import { firstDay, touches } from '../../shared/slips'
import type { Calendar, Occurrence } from '../types'
import { DateLink } from '../chosen/DateLink'
import { shownOn } from '../dates'
import { Plates } from '../Plates'
import { useOrganisation } from '../session/queries'
import { sayTime } from '../times'
import { shownAs } from './Slip'
import type { Plan } from './usePlanAddress'
import { t } from './words'

interface PlanListProps {
  plan: Plan
  calendars: Calendar[]
  occurrences: Occurrence[]
}

/** Four weeks, line by line. What lasts for days stands on its first day shown. */
export function PlanList({ plan, calendars, occurrences }: PlanListProps) {
  const { locale } = useOrganisation()
  const calendarOf = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  const days = daysFrom(plan.first, daysBetween(plan.first, plan.end))
    .map((day, index) => ({
      day,
      onDay: occurrences.filter((one) => (index === 0 ? touches(one, day) : firstDay(one) === day) && shownAs(one, calendarOf)),
    }))
    .filter(({ onDay }) => onDay.length > 0)
  if (days.length === 0) return <p className="empty">{t('nothingIsOnInThese')}</p>
  return (
    <ol className="plan-list">
      {days.map(({ day, onDay }) => (
        <li key={day} className={day === plan.today ? 'is-today' : undefined}>
          <h2>
            {sayDay(day, locale, { weekday: 'short' })} <span>{sayDay(day, locale, { day: 'numeric', month: 'short' })}</span>
          </h2>
          <ul>
            {onDay.map((occurrence) => (
              <li key={occurrence.eventId + occurrence.recurrenceId}>
                <span className="list-time">{sayTime(occurrence, day)}</span>
                <span className="list-plate">
                  <Plates calendars={shownOn(occurrence, calendarOf)} />
                </span>
                <DateLink occurrence={occurrence} />
                <span className="soft">{occurrence.place}</span>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}
