import { useFillableCalendars } from './queries'

/** The calendars on which the person makes events at once, to be chosen from. */
export function FillableOptions() {
  return useFillableCalendars().map((one) => (
    <option key={one.id} value={one.id}>
      {one.plate} {one.name}
    </option>
  ))
}
