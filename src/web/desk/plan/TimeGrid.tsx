import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { daysBetween, isWeekend, sayDay, type Day } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { firstDay, lastDay, timeOf, touches } from '../../shared/slips'
import { hoursOf, layoutDay, timeAt } from '../../shared/timeGrid'
import { addressOf } from '../dates'
import type { Calendar, DayInfo, Occurrence } from '../types'
import { useOrganisation } from '../session/queries'
import { sayTime, sayTimeShort } from '../times'
import { useDropOn, useMoving } from './moving'
import { readable } from './crowded'
import { aboutSlip, classesOf, mayMove, shownAs, useActsOn, Uncertain } from './Slip'
import { shapeOf } from '../shape'
import type { Plan } from './usePlanAddress'
import { t } from './words'

interface TimeGridProps {
  plan: Plan
  days: DayInfo[]
  calendars: Calendar[]
  occurrences: Occurrence[]
}

/** What has no length is still as high as this many minutes, so that it can be read and hit. */
/** Minutes by which times are moved. */
const QUARTER = 15
const LEAST_MINUTES = 30
const HOUR_HEIGHT = 46
/** Narrower than that, pixels, no slip can be read. */
const LEAST_WIDTH = 72

/** A week or a day by the clock: real hours, so that a day of 23 or 25 is as long as it is. */
export function TimeGrid({ plan, days, calendars, occurrences }: TimeGridProps) {
  const { locale } = useOrganisation()
  const scroller = useRef<HTMLDivElement>(null)
  const now = useNow()
  const calendarOf = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  const known = occurrences.filter((one) => shownAs(one, calendarOf))
  const isLong = (one: Occurrence) => one.allDay || Date.parse(one.end) - Date.parse(one.start) >= 24 * 3_600_000
  const longest = Math.max(...days.map((day) => Date.parse(day.end) - Date.parse(day.start)), 1) / 3_600_000
  const first = days[0]?.day
  useEffect(() => {
    scroller.current?.scrollTo({ top: 7.5 * HOUR_HEIGHT })
  }, [first])
  const room = useWidth(scroller)
  const most = Math.max(2, Math.floor((room - 52) / Math.max(1, days.length) / LEAST_WIDTH))
  const style = { '--days': days.length } as React.CSSProperties
  return (
    <div className="time-grid" style={style}>
      <div className="time-scroll" ref={scroller} tabIndex={0} role="region" aria-label={t('hours')}>
        <div className="time-top">
          <div className="time-heads">
            <span className="time-axis" />
            {days.map((day) => (
              <div
                key={day.day}
                className={`time-head ${day.day === plan.today ? 'is-today' : ''} ${day.closed ? 'is-closed' : ''}`}
                aria-current={day.day === plan.today ? 'date' : undefined}
              >
                <b>
                  {sayDay(day.day, locale, { weekday: 'short' })} {sayDay(day.day, locale, { day: 'numeric', month: 'short' })}
                </b>
                <small>
                  {day.clocksChangeAt &&
                    `${t('hoursBecauseClocksChange', { count: (Date.parse(day.end) - Date.parse(day.start)) / 3_600_000 })} `}
                  {day.closed ?? day.cycle}
                </small>
              </div>
            ))}
          </div>
          <div className="time-all-day">
            <span className="time-axis soft">{t('allDay')}</span>
            {days.map((day) => (
              <AllDayCell key={day.day} day={day.day}>
                {known
                  .filter((one) => isLong(one) && touches(one, day.day))
                  .map((one) => {
                    const calendar = shownAs(one, calendarOf)
                    return (
                      calendar && (
                        <AllDaySlip key={one.eventId + one.recurrenceId} occurrence={one} calendar={calendar} day={day.day} />
                      )
                    )
                  })}
              </AllDayCell>
            ))}
          </div>
        </div>
        <div className="time-hours" style={{ height: longest * HOUR_HEIGHT }}>
          <div className="time-axis">
            {days[0] &&
              hoursOf(days[0].start, days[0].end, days.length === 1 ? days[0].clocksChangeAt : null).map((hour) => (
                <span key={hour.top} style={{ top: `${hour.top * 100}%` }}>
                  {hour.label}
                </span>
              ))}
          </div>
          {days.map((day) => (
            <DayColumn
              key={day.day}
              day={day}
              plan={plan}
              now={now}
              calendarOf={calendarOf}
              isAlone={days.length === 1}
              most={most}
              occurrences={known.filter((one) => !isLong(one) && touches(one, day.day))}
            />
          ))}
        </div>
      </div>
    </div>
  )
}

function useWidth(element: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(1200)
  useEffect(() => {
    if (!element.current || typeof ResizeObserver === 'undefined') return
    const observer = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width))
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [element])
  return width
}

function useNow(): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 60_000)
    return () => clearInterval(timer)
  }, [])
  return now
}

function AllDayCell({ day, children }: { day: Day; children: React.ReactNode }) {
  const drop = useDropOn(day, null)
  return (
    <div className={isWeekend(day) ? 'is-weekend' : undefined} {...drop}>
      {children}
    </div>
  )
}

function AllDaySlip({ occurrence, calendar, day }: { occurrence: Occurrence; calendar: Calendar; day: Day }) {
  const acts = useActsOn(occurrence, calendar, day)
  const isFirst = firstDay(occurrence) === day
  const isLast = lastDay(occurrence) === day
  return (
    <Link
      to={addressOf(occurrence)}
      className={`slip-line ${shapeOf(occurrence)} ${isFirst ? '' : 'goes-on-before'} ${isLast ? '' : 'goes-on-after'}`}
      title={aboutSlip(occurrence, day)}
      {...acts}
    >
      <Plate code={calendar.plate} colour={calendar.colour} size="small" />
      <span className="slip-title">{occurrence.title}</span>
    </Link>
  )
}

interface DayColumnProps {
  day: DayInfo
  plan: Plan
  now: number
  calendarOf: Map<string, Calendar>
  isAlone: boolean
  /** How many stand side by side. */
  most: number
  occurrences: Occurrence[]
}

function DayColumn({ day, plan, now, calendarOf, isAlone, most, occurrences }: DayColumnProps) {
  const { locale } = useOrganisation()
  const navigate = useNavigate()
  const moving = useMoving()
  const [start, end] = [Date.parse(day.start), Date.parse(day.end)]
  const placed = layoutDay(
    { start, end },
    occurrences.map((item) => ({ item, stretch: { start: Date.parse(item.start), end: Date.parse(item.end) } })),
    LEAST_MINUTES / ((end - start) / 60_000),
  )
  const { shown, more } = readable(placed, most, (end - start) / 3_600_000)
  const timeUnder = (event: React.MouseEvent, below = 0) => {
    const box = event.currentTarget.getBoundingClientRect()
    return timeAt((event.clientY - below - box.top) / box.height, day.start, day.end, day.clocksChangeAt)
  }
  const mayEdit = [...calendarOf.values()].some((calendar) => calendar.mayContribute)
  const drop = (event: React.DragEvent) => {
    const dragged = moving.held()
    if (!dragged) return
    event.preventDefault()
    const { occurrence } = dragged
    const days = daysBetween(firstDay(occurrence), day.day)
    // An event on another clock is moved by as much as it was dragged; its own local time follows from that.
    // Half a quarter on, so that it goes to the nearest quarter and not to the one before.
    const target = timeUnder(event, dragged.below - HOUR_HEIGHT / 8)
    void moving.move(
      occurrence,
      days,
      occurrence.own ? shifted(timeOf(occurrence.own.start), minutes(target) - minutes(timeOf(occurrence.start))) : target,
    )
  }
  const classes = [
    'time-column',
    isWeekend(day.day) && 'is-weekend',
    day.closed && 'is-closed',
    day.day === plan.today && 'is-today',
  ]
  return (
    <div
      className={classes.filter(Boolean).join(' ')}
      onDragOver={(event) => moving.held() && event.preventDefault()}
      onDrop={drop}
      style={{ height: `${((end - start) / 3_600_000) * HOUR_HEIGHT}px` }}
    >
      {hoursOf(day.start, day.end, day.clocksChangeAt).map((hour) => (
        <i key={hour.top} className="time-line" style={{ top: `${hour.top * 100}%` }} aria-hidden="true">
          {!isAlone && day.clocksChangeAt ? hour.label : ''}
        </i>
      ))}
      {mayEdit && (
        <button
          type="button"
          data-cell
          className="time-free"
          aria-label={t('newEventDay', { day: sayDay(day.day, locale, { weekday: 'long', day: 'numeric', month: 'long' }) })}
          onClick={(event) => navigate(`/events/new?day=${day.day}${event.detail > 0 ? `&from=${timeUnder(event)}` : ''}`)}
        />
      )}
      {more.map((one) => (
        <button
          key={one.top}
          type="button"
          className="time-more"
          style={{
            top: `${one.top * 100}%`,
            height: `${one.height * 100}%`,
            left: `${((most - 1) / most) * 100}%`,
            width: `${100 / most}%`,
          }}
          onClick={() => plan.go(isAlone ? { view: 'list', day: day.day } : { view: 'day', day: day.day })}
        >
          {t('countMore', { count: one.count })}
        </button>
      ))}
      {shown.map((one) => {
        const calendar = shownAs(one.item, calendarOf)
        return (
          calendar && (
            <TimeSlip
              key={one.item.eventId + one.item.recurrenceId}
              occurrence={one.item}
              calendar={calendar}
              day={day.day}
              isNarrow={!isAlone && one.columns > 1}
              style={{
                top: `${one.top * 100}%`,
                height: `${one.height * 100}%`,
                left: `${(one.column / one.columns) * 100}%`,
                width: `${100 / one.columns}%`,
              }}
            />
          )
        )
      })}
      {start <= now && now < end && (
        <i className="time-now" style={{ top: `${((now - start) / (end - start)) * 100}%` }} title={t('now')} />
      )}
    </div>
  )
}

interface TimeSlipProps {
  occurrence: Occurrence
  calendar: Calendar
  day: Day
  /** There is room for its beginning only. */
  isNarrow: boolean
  style: React.CSSProperties
}

function TimeSlip({ occurrence, calendar, day, isNarrow, style }: TimeSlipProps) {
  const moving = useMoving()
  const own = occurrence.own ?? occurrence
  const isShort = Date.parse(occurrence.end) - Date.parse(occurrence.start) < 45 * 60_000
  const lasts = Math.round((Date.parse(occurrence.end) - Date.parse(occurrence.start)) / 60_000)
  const stretch = (by: number) => void moving.stretch(occurrence, Math.max(QUARTER, lasts + by))
  const acts = useActsOn(
    occurrence,
    calendar,
    day,
    (step) => {
      const next = minutes(timeOf(own.start)) + step * QUARTER
      void moving.move(occurrence, Math.floor(next / 1440), shifted(timeOf(own.start), step * QUARTER))
    },
    (step) => stretch(step * QUARTER),
  )
  const endsHere = mayMove(occurrence, calendar) && lastDay(occurrence) === day && lasts > 0
  return (
    <Link
      to={addressOf(occurrence)}
      className={classesOf(isShort ? 'slip time-slip is-short' : 'slip time-slip', occurrence)}
      style={style}
      title={aboutSlip(occurrence, day, calendar)}
      {...acts}
    >
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="slip-body">
        <span className="slip-time">
          {isNarrow ? sayTimeShort(occurrence, day) : sayTime(occurrence, day)}{' '}
          <span className="time-plate">{calendar.plate}</span>
        </span>
        <b className="slip-title">
          {occurrence.title}
          <Uncertain occurrence={occurrence} />
        </b>
        {occurrence.place && <span className="slip-place">{occurrence.place}</span>}
      </span>
      {endsHere && <Edge onStretch={stretch} />}
    </Link>
  )
}

/** The lower edge of a slip: drawn down it lasts longer, drawn up shorter, by quarters of an hour. */
function Edge({ onStretch }: { onStretch: (minutes: number) => void }) {
  const from = useRef<number | null>(null)
  const by = (event: React.PointerEvent) =>
    from.current === null ? 0 : Math.round((((event.clientY - from.current) / HOUR_HEIGHT) * 60) / QUARTER) * QUARTER
  const show = (edge: HTMLElement, minutes: number) => {
    edge.style.transform = minutes === 0 ? '' : `translateY(${(minutes / 60) * HOUR_HEIGHT}px)`
  }
  const leave = (event: React.PointerEvent<HTMLElement>) => {
    const minutes = by(event)
    from.current = null
    show(event.currentTarget, 0)
    return minutes
  }
  return (
    <span
      className="slip-edge"
      aria-hidden="true"
      title={t('drawLonger')}
      draggable
      onDragStart={(event) => {
        event.preventDefault()
        event.stopPropagation()
      }}
      onClick={(event) => {
        event.preventDefault()
        event.stopPropagation()
      }}
      onPointerDown={(event) => {
        event.preventDefault()
        from.current = event.clientY
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => from.current !== null && show(event.currentTarget, by(event))}
      onPointerCancel={leave}
      onPointerUp={(event) => {
        const minutes = leave(event)
        if (minutes !== 0) onStretch(minutes)
      }}
    />
  )
}

function minutes(time: string): number {
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))
}

function shifted(time: string, by: number): string {
  const at = (((minutes(time) + by) % 1440) + 1440) % 1440
  return `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`
}
