import { Link } from 'react-router'
import type { Day } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { sayTime, sayTimeShort } from '../../shared/slips'
import type { Calendar, Occurrence } from '../api'

interface SlipProps {
  occurrence: Occurrence
  calendar: Calendar
  day: Day
}

/** One date on the plan: paper, with a band of its calendar's colour and hatch. */
export function Slip({ occurrence, calendar, day }: SlipProps) {
  return (
    <Link to={addressOf(occurrence)} className={`slip slip-${occurrence.state}`}>
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
      </span>
    </Link>
  )
}

/** The same on one line of a week's column, which says the weekday too. */
export function ShortSlip({ occurrence, calendar, day, weekday }: SlipProps & { weekday: string }) {
  return (
    <Link
      to={addressOf(occurrence)}
      className={`slip slip-short slip-${occurrence.state}`}
      title={`${weekday} ${sayTime(occurrence, day)} ${occurrence.title}`}
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
  return (
    <Link
      to={addressOf(occurrence)}
      className={`slip-line slip-${occurrence.state}`}
      title={`${sayTime(occurrence, day)} ${occurrence.title}${occurrence.place ? `, ${occurrence.place}` : ''} (${calendar.name})`}
    >
      <Plate code={calendar.plate} colour={calendar.colour} size="small" />
      <span className="slip-time">{sayTimeShort(occurrence, day)}</span>
      <span className="slip-title">{occurrence.title}</span>
    </Link>
  )
}

function addressOf(occurrence: Occurrence): string {
  return `/events/${occurrence.eventId}?date=${occurrence.recurrenceId}`
}
