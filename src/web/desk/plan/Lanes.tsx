import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import { addDays, daysFrom, isWeekend, sayDay, type Day } from '../../shared/days'
import { lastDay, touches, touchesAny } from '../../shared/slips'
import { useArrowKeys } from '../../shared/useArrowKeys'
import type { Calendar, DayInfo, Group, Occurrence } from '../types'
import { useOrganisation } from '../session/queries'
import { sayTimeShort } from '../times'
import { barsOf, type Bar } from './bars'
import { areMany, laneGroups, useOpenGroups, type LaneGroup } from './laneGroups'
import { DenseHead, LaneHead } from './LaneHeads'
import { useDropOn } from './moving'
import { BarSlip, ShortSlip, Slip } from './Slip'
import { shapeOf } from '../shape'
import { useIsNear } from './useIsNear'
import type { Plan } from './usePlanAddress'
import { t } from './words'

/** The others are drawn as they come in sight. */
const DRAWN_AT_FIRST = 4
const MOST_MARKS = 8

interface LanesProps {
  plan: Plan
  days: DayInfo[]
  calendars: Calendar[]
  groups: Group[]
  occurrences: Occurrence[]
}

/** A lane for each calendar, a column for each day, or each week when six are across. Of many calendars the lanes are only as high as
 * their slips, and stand in groups. */
export function Lanes({ plan, days, calendars, groups, occurrences }: LanesProps) {
  const { locale, slug } = useOrganisation()
  const sections = laneGroups(calendars, groups)
  const { isOpen, put } = useOpenGroups(slug, sections)
  const isDense = areMany(calendars)
  const arrows = useArrowKeys()
  const columns =
    plan.weeks === 6
      ? daysFrom(plan.first, 6).map((_, week) => addDays(plan.first, week * 7))
      : daysFrom(plan.first, plan.weeks * 7)
  const isByWeek = plan.weeks === 6
  const infoOf = new Map(days.map((day) => [day.day, day]))
  const onCalendar = useMemo(() => byCalendar(occurrences), [occurrences])
  const head = (day: Day) => {
    if (isByWeek)
      return `${sayDay(day, locale, { day: 'numeric', month: 'short' })} – ${sayDay(addDays(day, 6), locale, { day: 'numeric', month: 'short' })}`
    return `${sayDay(day, locale, { weekday: 'short' })} ${sayDay(day, locale, { day: 'numeric' })}`
  }
  return (
    <table ref={arrows} className={`lanes lanes-${plan.weeks} ${isDense ? 'is-dense' : ''}`}>
      <caption className="visually-hidden">{isByWeek ? t('calendarsByWeek') : t('calendarsByDay')}</caption>
      <thead>
        <tr>
          <th scope="col" className="lane-head">
            <span className="soft">{t('calendars', { count: calendars.length })}</span>
            {sections.length > 1 && (
              <button
                type="button"
                className="as-link"
                onClick={() =>
                  put(
                    sections.map(({ name }) => name),
                    !sections.every(({ name }) => isOpen(name)),
                  )
                }
              >
                {sections.every(({ name }) => isOpen(name)) ? t('foldAll') : t('openAll')}
              </button>
            )}
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
      {sections.map((section, place) => {
        const open = sections.length === 1 || isOpen(section.name)
        return (
          <tbody key={section.name}>
            {sections.length > 1 && (
              <GroupRow
                section={section}
                isOpen={open}
                columns={columns}
                isByWeek={isByWeek}
                onCalendar={onCalendar}
                toggle={() => put([section.name], !open)}
              />
            )}
            {open &&
              section.calendars.map((calendar, row) => (
                <Lane
                  key={calendar.id}
                  calendar={calendar}
                  columns={columns}
                  isByWeek={isByWeek}
                  isDense={isDense}
                  isAtFirst={!isDense || (place === 0 && row < DRAWN_AT_FIRST)}
                  infoOf={infoOf}
                  occurrences={onCalendar.get(calendar.id) ?? []}
                  plan={plan}
                />
              ))}
          </tbody>
        )
      })}
    </table>
  )
}

interface LaneProps {
  calendar: Calendar
  columns: Day[]
  isByWeek: boolean
  isDense: boolean
  isAtFirst: boolean
  infoOf: Map<string, DayInfo>
  /** Of this calendar. */
  occurrences: Occurrence[]
  plan: Plan
}

function Lane({ calendar, columns, isByWeek, isDense, isAtFirst, infoOf, occurrences, plan }: LaneProps) {
  const { locale } = useOrganisation()
  const { element, isNear } = useIsNear<HTMLTableRowElement>(isAtFirst)
  const Head = isDense ? DenseHead : LaneHead
  if (!isNear)
    return (
      <tr ref={element}>
        <Head calendar={calendar} rows={1} />
        <td colSpan={columns.length} />
      </tr>
    )
  const { rows, rest } = barsOf(occurrences, columns, isByWeek ? 7 : 1)
  const head = <Head calendar={calendar} rows={rows.length + 1} />
  const cells = columns.map((day) =>
    isByWeek ? (
      <WeekCell
        key={day}
        calendar={calendar}
        first={day}
        occurrences={rest}
        isBusyOn={(one) => occurrences.some((occurrence) => touches(occurrence, one))}
        locale={locale}
      />
    ) : (
      <DayCell
        key={day}
        calendar={calendar}
        day={day}
        className={dayClasses(day, plan, infoOf)}
        isDense={isDense}
        occurrences={rest}
        locale={locale}
        rowsAbove={rows.length}
      />
    ),
  )
  return (
    <>
      {rows.map((bars, row) => (
        <tr key={row} ref={row === 0 ? element : undefined} className="bar-row">
          {row === 0 && head}
          {columns.map((day, column) => {
            const bar = bars.find((one) => one.from <= column && column <= one.to)
            if (bar && bar.from < column) return null
            if (bar) return <BarCell key={day} bar={bar} calendar={calendar} />
            return <td key={day} className={isByWeek ? undefined : dayClasses(day, plan, infoOf)} />
          })}
        </tr>
      ))}
      <tr ref={rows.length === 0 ? element : undefined}>
        {rows.length === 0 && head}
        {cells}
      </tr>
    </>
  )
}

function BarCell({ bar, calendar }: { bar: Bar; calendar: Calendar }) {
  const drop = useDropOn(bar.day, calendar.id)
  return (
    <td colSpan={bar.to - bar.from + 1} {...drop}>
      <BarSlip bar={bar} calendar={calendar} />
    </td>
  )
}

function dayClasses(day: Day, plan: Plan, infoOf: Map<string, DayInfo>): string | undefined {
  return classes(isWeekend(day) && 'is-weekend', day === plan.today && 'is-today', infoOf.get(day)?.closed != null && 'is-closed')
}

interface GroupRowProps {
  section: LaneGroup
  isOpen: boolean
  columns: Day[]
  isByWeek: boolean
  onCalendar: OnCalendar
  toggle: () => void
}

/** The name of a group; while it is folded, a mark for each of its dates. */
function GroupRow({ section, isOpen, columns, isByWeek, onCalendar, toggle }: GroupRowProps) {
  return (
    <tr className="lane-group">
      <th scope="rowgroup">
        <button type="button" aria-expanded={isOpen} onClick={toggle}>
          <span aria-hidden="true">{isOpen ? '▾' : '▸'}</span> {section.name}{' '}
          <small>{t('calendarsInGroup', { count: section.calendars.length })}</small>
        </button>
      </th>
      {isOpen ? (
        <td colSpan={columns.length} />
      ) : (
        columns.map((day) => (
          <Marks key={day} calendars={section.calendars} onCalendar={onCalendar} from={day} to={addDays(day, isByWeek ? 7 : 1)} />
        ))
      )}
    </tr>
  )
}

function Marks({ calendars, onCalendar, from, to }: { calendars: Calendar[]; onCalendar: OnCalendar; from: Day; to: Day }) {
  const marks = calendars.flatMap((calendar) =>
    (onCalendar.get(calendar.id) ?? []).filter((one) => touchesAny(one, from, to)).map((one) => ({ calendar, one })),
  )
  if (marks.length === 0) return <td />
  return (
    <td title={t('marksOnDay', { count: marks.length })}>
      <span className="visually-hidden">{t('marksOnDay', { count: marks.length })}</span>
      <span className="lane-marks" aria-hidden="true">
        {marks.slice(0, MOST_MARKS).map(({ calendar, one }) => (
          <i key={calendar.id + one.eventId + one.recurrenceId} className={`band hue-${calendar.colour} ${shapeOf(one)}`} />
        ))}
        {marks.length > MOST_MARKS && <span>{t('moreMarks', { count: marks.length - MOST_MARKS })}</span>}
      </span>
    </td>
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
  className,
  isDense,
  occurrences,
  locale,
  rowsAbove,
}: CellProps & { day: Day; className: string | undefined; isDense: boolean; rowsAbove: number }) {
  const Shown = isDense ? ShortSlip : Slip
  const drop = useDropOn(day, calendar.id)
  return (
    <td className={className} {...drop}>
      {/* Its free space goes on between the bars above. */}
      <NewHere calendar={calendar} day={day} locale={locale} className={`cell-free is-below-${Math.min(rowsAbove, 4)}`} />
      {occurrences
        .filter((occurrence) => touches(occurrence, day))
        .map((occurrence) => (
          <Shown key={occurrence.eventId + occurrence.recurrenceId} occurrence={occurrence} calendar={calendar} day={day} />
        ))}
    </td>
  )
}

/** A week of a lane: its seven days to start an event on, and what is on. */
function WeekCell({
  calendar,
  first,
  occurrences,
  isBusyOn,
  locale,
}: CellProps & { first: Day; isBusyOn: (day: Day) => boolean }) {
  const days = daysFrom(first, 7)
  return (
    <td>
      <div className="week-days">
        {days.map((day) => (
          <NewHere key={day} calendar={calendar} day={day} locale={locale} className="week-day" busy={isBusyOn(day)}>
            {Number(day.slice(8))}
          </NewHere>
        ))}
      </div>
      {occurrences
        .filter((occurrence) => touchesAny(occurrence, first, addDays(first, 7)))
        .map((occurrence) => {
          const day = days.find((one) => touches(occurrence, one)) ?? first
          return (
            <ShortSlip
              key={occurrence.eventId + occurrence.recurrenceId}
              occurrence={occurrence}
              calendar={calendar}
              day={day}
              when={sayWhenInWeek(occurrence, day, locale)}
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
      data-day={day}
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

/** "Mon 14:00", or "Mon – Fri" of what lasts for whole days. */
function sayWhenInWeek(occurrence: Occurrence, day: Day, locale: string): string {
  const weekday = sayDay(day, locale, { weekday: 'short' })
  const last = lastDay(occurrence)
  if (!occurrence.allDay || last === day) return `${weekday} ${sayTimeShort(occurrence, day)}`
  return `${weekday} – ${sayDay(last, locale, { weekday: 'short' })}`
}

/** The dates of each calendar: its own, and those that are placed on it. */
type OnCalendar = Map<string, Occurrence[]>

function byCalendar(occurrences: Occurrence[]): OnCalendar {
  const on: OnCalendar = new Map()
  for (const occurrence of occurrences)
    for (const id of [occurrence.calendarId, ...occurrence.alsoOn]) {
      const dates = on.get(id)
      if (dates) dates.push(occurrence)
      else on.set(id, [occurrence])
    }
  return on
}
