import { Link } from 'react-router'
import { placeOfZone, type Day } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import type { Calendar, Occurrence } from '../types'
import { useCalendars } from '../calendars/queries'
import { addressOf, shownOn } from '../dates'
import { Plates } from '../Plates'
import { sayDays, sayTime, sayTimeShort } from '../times'
import { useChoosable } from '../chosen/choosing'
import type { Bar } from './bars'
import { useMovable } from './moving'
import { shapeOf } from '../shape'
import { t } from './words'

interface SlipProps {
  occurrence: Occurrence
  calendar: Calendar
  day: Day
}

/** One date on the plan: paper, with a band of its calendar's colour and hatch. */
export function Slip({ occurrence, calendar, day }: SlipProps) {
  const acts = useActsOn(occurrence, calendar, day)
  return (
    <Link to={addressOf(occurrence)} className={classesOf(placed(occurrence, calendar, 'slip'), occurrence)} {...acts}>
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="slip-body">
        <span className="slip-time">
          {sayTime(occurrence, day)}
          <Recurs occurrence={occurrence} />
        </span>
        <b className="slip-title">
          {occurrence.title}
          <Uncertain occurrence={occurrence} />
        </b>
        {(occurrence.place || occurrence.alsoOn.length > 0) && (
          <span className="slip-place">
            {occurrence.place} <AlsoOn occurrence={occurrence} calendar={calendar} />
          </span>
        )}
        {occurrence.own && (
          <span className="slip-place">
            {t('timeInPlaceOfZone', {
              time: sayTime({ ...occurrence.own, allDay: false }),
              place: placeOfZone(occurrence.own.zone),
            })}
          </span>
        )}
      </span>
    </Link>
  )
}

/** What can be done with a slip: it is moved, and chosen with others. */
export function useActsOn(
  occurrence: Occurrence,
  calendar: Calendar,
  day: Day,
  onUpDown?: (step: 1 | -1) => void,
  onLonger?: (step: 1 | -1) => void,
) {
  return { ...useMovable(occurrence, day, mayMove(occurrence, calendar), onUpDown, onLonger), ...useChoosable(occurrence) }
}

/** The same on one line; of a week's column it is told when it says. */
export function ShortSlip({ occurrence, calendar, day, when = sayTimeShort(occurrence, day) }: SlipProps & { when?: string }) {
  const acts = useActsOn(occurrence, calendar, day)
  return (
    <Link
      to={addressOf(occurrence)}
      className={classesOf(placed(occurrence, calendar, 'slip slip-short'), occurrence)}
      title={aboutSlip(occurrence, day)}
      {...acts}
    >
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      <span className="slip-body">
        <span className="slip-time">{when}</span>
        <b className="slip-title">
          {occurrence.title}
          <Uncertain occurrence={occurrence} />
        </b>
        {occurrence.place && <span className="visually-hidden">, {occurrence.place}</span>}
      </span>
    </Link>
  )
}

/** What lasts across several columns, as one bar. */
export function BarSlip({ bar, calendar, withPlate = false }: { bar: Bar; calendar: Calendar; withPlate?: boolean }) {
  const { occurrence, day, comesFromBefore, goesOnAfter } = bar
  const acts = useActsOn(occurrence, calendar, day)
  const kind = ['slip slip-short slip-bar', comesFromBefore && 'comes-from-before', goesOnAfter && 'goes-on-after']
  return (
    <Link
      to={addressOf(occurrence)}
      className={classesOf(placed(occurrence, calendar, kind.filter(Boolean).join(' ')), occurrence)}
      title={aboutSlip(occurrence, day, calendar)}
      {...acts}
    >
      <span className={`band hue-${calendar.colour}`} aria-hidden="true" />
      {withPlate && (
        <>
          <Plate code={calendar.plate} colour={calendar.colour} size="small" />
          <AlsoOnCount occurrence={occurrence} />
        </>
      )}
      <span className="slip-body">
        <b className="slip-title">
          {occurrence.title}
          <Uncertain occurrence={occurrence} />
        </b>
        <span className="slip-time">
          {sayDays(occurrence)}
          <Recurs occurrence={occurrence} />
        </span>
      </span>
    </Link>
  )
}

/** The same on one line, with the plate. */
export function SlipLine({ occurrence, calendar, day }: SlipProps) {
  const acts = useActsOn(occurrence, calendar, day)
  return (
    <Link
      to={addressOf(occurrence)}
      className={classesOf('slip-line', occurrence)}
      title={aboutSlip(occurrence, day, calendar)}
      {...acts}
    >
      <Plate code={calendar.plate} colour={calendar.colour} size="small" />
      <AlsoOnCount occurrence={occurrence} />
      <span className="slip-time">{sayTimeShort(occurrence, day)}</span>
      <span className="slip-title">
        {occurrence.title}
        <Uncertain occurrence={occurrence} />
      </span>
    </Link>
  )
}

/** Three notches: one date of many. */
export function Recurs({ occurrence }: { occurrence: Occurrence }) {
  if (!occurrence.recurs) return null
  return (
    <span className="recurs" title={t('recurs')}>
      <span className="visually-hidden">, {t('recurs')}</span>
    </span>
  )
}

/** What its torn edge says, in words. */
export function Uncertain({ occurrence }: { occurrence: Occurrence }) {
  if (occurrence.certainty === 'certain') return null
  return <span className="visually-hidden">, {t('notCertainYet')}</span>
}

/** All of a slip in a line: where there is no room for it. */
export function aboutSlip(occurrence: Occurrence, day: Day, calendar?: Calendar): string {
  const { title, place, certainty } = occurrence
  const said = [title, place, certainty === 'tentative' && t('notCertainYet')].filter(Boolean).join(', ')
  return `${sayTime(occurrence, day)} ${said}${calendar ? ` (${calendar.name})` : ''}`
}

/** On any of some calendars. */
export function shownAmong({ calendarId, alsoOn }: Occurrence, calendars: Set<string>): boolean {
  return calendars.has(calendarId) || alsoOn.some((id) => calendars.has(id))
}

/** The calendar to show it as: its home, or where that is not in sight the first that is. */
export function shownAs(occurrence: Occurrence, calendarOf: Map<string, Calendar>): Calendar | undefined {
  return shownOn(occurrence, calendarOf)[0]
}

/** Who may change it at home can drag it; where it is only placed it is not theirs to move. */
export function mayMove(occurrence: Occurrence, calendar: Calendar): boolean {
  return calendar.mayContribute && occurrence.calendarId === calendar.id
}

/** The plates of further calendars that show it: one event, not a copy. */
function AlsoOn({ occurrence, calendar }: { occurrence: Occurrence; calendar: Calendar }) {
  const others = [occurrence.calendarId, ...occurrence.alsoOn].filter((id) => id !== calendar.id)
  const calendars = useCalendars().data ?? []
  if (others.length === 0) return null
  return (
    <span className="also-on">
      <span className="visually-hidden">{t('alsoOn')} </span>
      <Plates calendars={calendars.filter((one) => others.includes(one.id))} />
    </span>
  )
}

/** Where one line has no room for their plates: how many they are. */
function AlsoOnCount({ occurrence }: { occurrence: Occurrence }) {
  const others = occurrence.alsoOn.length
  if (others === 0) return null
  return (
    <span className="also-on-count" title={t('alsoOnOthers', { count: others })}>
      <span aria-hidden="true">+{others}</span>
      <span className="visually-hidden">{t('alsoOnMore', { count: others })}</span>
    </span>
  )
}

/** Where it is only placed its band is paler: its home is another lane. */
function placed(occurrence: Occurrence, calendar: Calendar, kind: string): string {
  return occurrence.calendarId === calendar.id ? kind : `${kind} slip-placed`
}

/** What it is is a shape: dashed draft, struck through cancelled, a folded corner for a date that differs from its series, a torn edge for what is not certain yet. */
export function classesOf(kind: string, occurrence: Occurrence): string {
  return [kind, shapeOf(occurrence), occurrence.isException && 'slip-exception'].filter(Boolean).join(' ')
}
