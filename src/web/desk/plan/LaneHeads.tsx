import { Plate } from '../../shared/Plate'
import { DeliveryLine } from '../Delivery'
import { ReachOfCalendar } from '../deliveries/ReachSign'
import { Levels } from '../Level'
import { sayOpenness } from '../openness'
import type { Calendar } from '../types'

interface HeadProps {
  calendar: Calendar
  /** Those of bars, and the one of days. */
  rows: number
}

/** Plate, name and how open it is on one line; whether it has gone out only where it has not. */
export function DenseHead({ calendar, rows }: HeadProps) {
  return (
    <th scope="row" rowSpan={rows} className="lane-head" title={`${calendar.name}: ${sayOpenness(calendar)}`}>
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="dense-head">
        <Plate code={calendar.plate} colour={calendar.colour} size="small" />
        <span className="lane-name">{calendar.name}</span>
        <Levels disclosure={calendar.disclosure} />
        <span className="visually-hidden">{sayOpenness(calendar)}</span>
      </span>
      {(calendar.delivery.state === 'failing' || calendar.delivery.state === 'pending') && (
        <DeliveryLine delivery={calendar.delivery} />
      )}
    </th>
  )
}

export function LaneHead({ calendar, rows }: HeadProps) {
  return (
    <th scope="row" rowSpan={rows} className="lane-head">
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="lane-name">
        <Plate code={calendar.plate} colour={calendar.colour} /> {calendar.name}
      </span>
      <span className="lane-openness">
        <Levels disclosure={calendar.disclosure} /> {sayOpenness(calendar)}
      </span>
      <DeliveryLine delivery={calendar.delivery} />
      {calendar.delivery.state === 'upToDate' && <ReachOfCalendar id={calendar.id} />}
    </th>
  )
}
