import { Plate } from '../shared/Plate'
import type { Calendar } from './types'

/** Small plates side by side. */
export function Plates({ calendars }: { calendars: Calendar[] }) {
  return calendars.map(({ id, plate, colour }) => <Plate key={id} code={plate} colour={colour} size="small" />)
}
