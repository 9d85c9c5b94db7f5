import { Link } from 'react-router'
import { placeOfZone, type Day } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { sayTime, sayTimeShort } from '../../shared/slips'
import type { Calendar, Occurrence } from '../api'
import { useMovable } from './moving'

interface SlipProps {
  occurrence: Occurrence
  calendar: Calendar
  day: Day
}

/** One date on the plan: paper, with a band of its calendar's colour and hatch. */
export function Slip({ occurrence, calendar, day }: SlipProps) {
  const movable = useMovable(occurrence, day, calendar.mayEdit)
  return (
    <Link to={addressOf(occurrence)} className={classesOf('slip', occurrence)} {...movable}>
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="slip-body">
        <span className="slip-time">
          {sayTime(occurrence, day)}
          {occurrence.recurs && (
            <span className="recurs" title="recurs">
              <span className="visually-hidden">, recurs</span>
            </span>
          )}
        </span>
        <b className="slip-title">{occurrence.title}</b>
        {occurrence.place && <span className="slip-place">{occurrence.place}</span>}
        {occurrence.own && (
          <span className="slip-place">
            {sayTime({ ...occurrence.own, allDay: false })} in {placeOfZone(occurrence.own.zone)}
          </span>
        )}
      </span>
    </Link>
  )
}

/** The same on one line of a week's column, which says the weekday too. */
export function ShortSlip({ occurrence, calendar, day, weekday }: SlipProps & { weekday: string }) {
  const movable = useMovable(occurrence, day, calendar.mayEdit)
  return (
    <Link
      to={addressOf(occurrence)}
      className={classesOf('slip slip-short', occurrence)}
      title={`${weekday} ${sayTime(occurrence, day)} ${occurrence.title}`}
      {...movable}
    >
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="slip-body">
        <span className="slip-time">
          {weekday} {sayTimeShort(occurrence, day)}
        </span>
        <b className="slip-title">{occurrence.title}</b>
      </span>
    </Link>
  )
}

/** The same on one line, with the plate. */
export function SlipLine({ occurrence, calendar, day }: SlipProps) {
  const movable = useMovable(occurrence, day, calendar.mayEdit)
  return (
    <Link
      to={addressOf(occurrence)}
      className={classesOf('slip-line', occurrence)}
      title={`${sayTime(occurrence, day)} ${occurrence.title}${occurrence.place ? `, ${occurrence.place}` : ''} (${calendar.name})`}
      {...movable}
    >
      <Plate code={calendar.plate} colour={calendar.colour} size="small" />
      <span className="slip-time">{sayTimeShort(occurrence, day)}</span>
      <span className="slip-title">{occurrence.title}</span>
    </Link>
  )
}

export function addressOf(occurrence: Occurrence): string {
  return `/events/${occurrence.eventId}?date=${occurrence.recurrenceId}`
}

/** State is a shape: dashed draft, struck through cancelled, a folded corner for a date that differs from its series. */
function classesOf(kind: string, occurrence: Occurrence): string {
  return `${kind} slip-${occurrence.state}${occurrence.isException ? ' slip-exception' : ''}`
}
