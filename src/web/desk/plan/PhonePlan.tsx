import { useRef } from 'react'
import { Link } from 'react-router'
import { daysBetween, daysFrom, isWeekend, monthOf, sayDay, weekOf, type Day } from '../../shared/days'
import { firstDay, touches } from '../../shared/slips'
import { addressOf, shownOn } from '../dates'
import { useChoosable } from '../chosen/choosing'
import { Plates } from '../Plates'
import { useOrganisation } from '../session/queries'
import { sayTime } from '../times'
import type { Calendar, DayInfo, Occurrence } from '../types'
import { classesOf, Recurs, shownAs, Uncertain } from './Slip'
import type { Plan } from './usePlanAddress'
import { t } from './words'

interface PhonePlanProps {
  plan: Plan
  days: DayInfo[]
  calendars: Calendar[]
  occurrences: Occurrence[]
}

/** Where there is no room for lanes: the days of the span above, and what is on, day by day. */
export function PhonePlan({ plan, days, calendars, occurrences }: PhonePlanProps) {
  const { firstDayOfWeek } = useOrganisation()
  const top = useRef<HTMLDivElement>(null)
  const calendarOf = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  const infoOf = new Map(days.map((day) => [day.day, day]))
  const inSight = occurrences.filter((one) => shownAs(one, calendarOf))
  const first = weekOf(plan.first, firstDayOfWeek)
  const strip = daysFrom(first, Math.ceil(daysBetween(first, plan.end) / 7) * 7)
  const shown = daysFrom(plan.first, daysBetween(plan.first, plan.end))
  const go = (day: Day) => {
    if (plan.view === 'day') plan.go({ day })
    else top.current?.querySelector(`[data-day="${day}"]`)?.scrollIntoView({ block: 'start' })
  }
  return (
    <div ref={top}>
      <Strip plan={plan} days={strip} occurrences={inSight} go={go} />
      {shown.map((day, index) => {
        const onDay = inSight.filter((one) => (index === 0 ? touches(one, day) : firstDay(one) === day))
        const remark = [infoOf.get(day)?.closed, infoOf.get(day)?.cycle].filter(Boolean).join(' · ')
        return onDay.length === 0 && plan.view !== 'day' && day !== plan.today ? (
          <span key={day} data-day={day} />
        ) : (
          <section key={day} data-day={day} className="phone-day">
            <DayHead day={day} isToday={day === plan.today} remark={remark} />
            {onDay.length === 0 && <p className="soft">{t('nothingOnThisDay')}</p>}
            {onDay.map((one) => (
              <PhoneSlip key={one.eventId + one.recurrenceId} occurrence={one} day={day} calendarOf={calendarOf} />
            ))}
          </section>
        )
      })}
    </div>
  )
}

/** Each day with how much is on. */
function Strip({ plan, days, occurrences, go }: { plan: Plan; days: Day[]; occurrences: Occurrence[]; go: (day: Day) => void }) {
  const { locale } = useOrganisation()
  const counts = new Map(days.map((day) => [day, occurrences.filter((one) => touches(one, day)).length]))
  const most = Math.max(1, ...counts.values())
  const classesOf = (day: Day) =>
    [
      day === plan.today && 'is-today',
      plan.view === 'day' && day === plan.day && 'is-shown',
      isWeekend(day) && 'is-weekend',
      plan.view === 'month' && monthOf(day) !== monthOf(plan.day) && 'is-outside',
    ]
      .filter(Boolean)
      .join(' ')
  return (
    <div className="day-strip" role="group" aria-label={t('daysOfTheWeek')}>
      {days.map((day, index) => {
        const count = counts.get(day) ?? 0
        const name = sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long' })
        return (
          <button
            key={day}
            type="button"
            className={classesOf(day)}
            aria-label={t('datesOnDay', { day: name, count })}
            aria-current={day === plan.today ? 'date' : undefined}
            onClick={() => go(day)}
          >
            {index < 7 && <span>{sayDay(day, locale, { weekday: 'short' }).slice(0, 2)}</span>}
            <b>{Number(day.slice(8))}</b>
            <svg viewBox="0 0 20 4" aria-hidden="true">
              <rect x={10 - (10 * count) / most} width={(20 * count) / most} height="4" />
            </svg>
          </button>
        )
      })}
    </div>
  )
}

function DayHead({ day, isToday, remark }: { day: Day; isToday: boolean; remark: string }) {
  const { locale } = useOrganisation()
  return (
    <h2>
      {sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long' })}{' '}
      <small>{[isToday && t('todayMark'), remark].filter(Boolean).join(' · ')}</small>
    </h2>
  )
}

interface PhoneSlipProps {
  occurrence: Occurrence
  day: Day
  calendarOf: Map<string, Calendar>
}

function PhoneSlip({ occurrence, day, calendarOf }: PhoneSlipProps) {
  const on = shownOn(occurrence, calendarOf)
  const choosable = useChoosable(occurrence)
  return (
    <Link to={addressOf(occurrence)} className={classesOf('slip phone-slip', occurrence)} {...choosable}>
      <span className={`band hue-${on[0]?.colour}`} aria-hidden="true" />
      <span className="slip-body">
        <span className="slip-time">
          {sayTime(occurrence, day)}
          <Recurs occurrence={occurrence} />
        </span>
        <b className="slip-title">
          {occurrence.title}
          <Uncertain occurrence={occurrence} />
        </b>
        <span className="slip-place">{occurrence.place}</span>
      </span>
      <span className="phone-plates">
        <Plates calendars={on} />
      </span>
    </Link>
  )
}
