import { useNavigate } from 'react-router'
import { addDays, daysFrom, isWeekend, sayDay, type Day } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { touches } from '../../shared/slips'
import { useArrowKeys } from '../../shared/useArrowKeys'
import type { Calendar, DayInfo, Occurrence } from '../types'
import { DeliveryLine } from '../Delivery'
import { Levels } from '../Level'
import { sayOpenness } from '../openness'
import { useOrganisation } from '../session/queries'
import { useDropOn } from './moving'
import { isOn, ShortSlip, Slip } from './Slip'
import type { Plan } from './usePlanAddress'
import { t } from './words'

interface LanesProps {
  plan: Plan
  days: DayInfo[]
  calendars: Calendar[]
  occurrences: Occurrence[]
}

/** A lane for each calendar, a column for each day, or each week when six are across. */
export function Lanes({ plan, days, calendars, occurrences }: LanesProps) {
  const { locale } = useOrganisation()
  const arrows = useArrowKeys()
  const columns =
    plan.weeks === 6
      ? daysFrom(plan.first, 6).map((_, week) => addDays(plan.first, week * 7))
      : daysFrom(plan.first, plan.weeks * 7)
  const isByWeek = plan.weeks === 6
  const infoOf = new Map(days.map((day) => [day.day, day]))
  const head = (day: Day) => {
    if (isByWeek)
      return `${sayDay(day, locale, { day: 'numeric', month: 'short' })} – ${sayDay(addDays(day, 6), locale, { day: 'numeric', month: 'short' })}`
    return `${sayDay(day, locale, { weekday: 'short' })} ${sayDay(day, locale, { day: 'numeric' })}`
  }
  return (
    <table ref={arrows} className={`lanes lanes-${plan.weeks}`}>
      <caption className="visually-hidden">{isByWeek ? t('calendarsByWeek') : t('calendarsByDay')}</caption>
      <thead>
        <tr>
          <th scope="col" className="lane-head">
            <span className="soft">{t('calendars', { count: calendars.length })}</span>
          </th>
          {columns.map((day) => {
            const isNow = isByWeek ? day <= plan.today && plan.today < addDays(day, 7) : day === plan.today
            return (
              <th
                key={day}
                scope="col"
                className={classes(
                  !isByWeek && isWeekend(day) && 'is-weekend',
                  isNow && 'is-today',
                  !isByWeek && infoOf.get(day)?.closed && 'is-closed',
                )}
                title={infoOf.get(day)?.closed ?? undefined}
              >
                {head(day)}
                {isNow && <small>{isByWeek ? t('now') : t('todayMark')}</small>}
                {!isByWeek && plan.weeks === 1 && (
                  <small className="day-remark">{infoOf.get(day)?.closed ?? infoOf.get(day)?.cycle}</small>
                )}
              </th>
            )
          })}
        </tr>
      </thead>
      <tbody>
        {calendars.map((calendar) => {
          const own = occurrences.filter((occurrence) => isOn(occurrence, calendar.id))
          return (
            <tr key={calendar.id}>
              <LaneHead calendar={calendar} />
              {columns.map((day) =>
                isByWeek ? (
                  <WeekCell key={day} calendar={calendar} first={day} occurrences={own} locale={locale} />
                ) : (
                  <DayCell
                    key={day}
                    calendar={calendar}
                    day={day}
                    isClosed={infoOf.get(day)?.closed != null}
                    occurrences={own}
                    plan={plan}
                    locale={locale}
                  />
                ),
              )}
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

function LaneHead({ calendar }: { calendar: Calendar }) {
  return (
    <th scope="row" className="lane-head">
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="lane-name">
        <Plate code={calendar.plate} colour={calendar.colour} /> {calendar.name}
      </span>
      <span className="lane-openness">
        <Levels disclosure={calendar.disclosure} /> {sayOpenness(calendar)}
      </span>
      <DeliveryLine delivery={calendar.delivery} />
    </th>
  )
}

interface CellProps {
  calendar: Calendar
  occurrences: Occurrence[]
  locale: string
}

/** A day of a lane. Pressing its free space starts an event on that calendar and day. */
function DayCell({
  calendar,
  day,
  isClosed,
  occurrences,
  plan,
  locale,
}: CellProps & { day: Day; isClosed: boolean; plan: Plan }) {
  const drop = useDropOn(day, calendar.id)
  return (
    <td className={classes(isWeekend(day) && 'is-weekend', day === plan.today && 'is-today', isClosed && 'is-closed')} {...drop}>
      <NewHere calendar={calendar} day={day} locale={locale} className="cell-free" />
      {occurrences
        .filter((occurrence) => touches(occurrence, day))
        .map((occurrence) => (
          <Slip key={occurrence.eventId + occurrence.recurrenceId} occurrence={occurrence} calendar={calendar} day={day} />
        ))}
    </td>
  )
}

/** A week of a lane: its seven days to start an event on, and what is on. */
function WeekCell({ calendar, first, occurrences, locale }: CellProps & { first: Day }) {
  const days = daysFrom(first, 7)
  return (
    <td>
      <div className="week-days">
        {days.map((day) => (
          <NewHere
            key={day}
            calendar={calendar}
            day={day}
            locale={locale}
            className="week-day"
            busy={occurrences.some((one) => touches(one, day))}
          >
            {Number(day.slice(8))}
          </NewHere>
        ))}
      </div>
      {occurrences
        .filter((occurrence) => days.some((day) => touches(occurrence, day)))
        .map((occurrence) => {
          const day = days.find((one) => touches(occurrence, one)) ?? first
          return (
            <ShortSlip
              key={occurrence.eventId + occurrence.recurrenceId}
              occurrence={occurrence}
              calendar={calendar}
              day={day}
              weekday={sayDay(day, locale, { weekday: 'short' })}
            />
          )
        })}
    </td>
  )
}

interface NewHereProps {
  calendar: Calendar
  day: Day
  locale: string
  className: string
  busy?: boolean
  children?: React.ReactNode
}

function NewHere({ calendar, day, locale, className, busy = false, children }: NewHereProps) {
  const navigate = useNavigate()
  const drop = useDropOn(day, calendar.id)
  if (!calendar.mayContribute) return children ? <span className={className}>{children}</span> : null
  return (
    <button
      type="button"
      data-cell
      className={busy ? `${className} is-busy` : className}
      aria-label={t('newEventOnNameDay', {
        name: calendar.name,
        day: sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long' }),
      })}
      onClick={() => navigate(`/events/new?calendar=${calendar.id}&day=${day}`)}
      {...(children ? drop : {})}
    >
      {children ?? <span aria-hidden="true">+</span>}
    </button>
  )
}

function classes(...names: (string | false | null | undefined)[]): string | undefined {
  return names.filter(Boolean).join(' ') || undefined
}
