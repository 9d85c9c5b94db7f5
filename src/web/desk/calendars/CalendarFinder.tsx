import { Fragment, useId, useState, type ReactNode } from 'react'
import { laneGroups } from '../plan/laneGroups'
import type { Calendar } from '../types'
import { isMeant, MANY } from './finding'
import { useGroups } from './queries'
import { t } from './words'

interface CalendarFinderProps {
  calendars: Calendar[]
  /** These stand first, whatever is looked for; chosen already, or likely to be. */
  chosen: string[]
  children: (calendar: Calendar) => ReactNode
}

/** Calendars to choose from. Where they are many, they are looked for by name, plate or group, and stand in groups. */
export function CalendarFinder({ calendars, chosen, children }: CalendarFinderProps) {
  const groups = useGroups().data ?? []
  const [find, setFind] = useState('')
  const id = useId()
  const each = (calendar: Calendar) => <Fragment key={calendar.id}>{children(calendar)}</Fragment>
  if (calendars.length <= MANY) return calendars.map(each)
  const isLooking = find.trim() !== ''
  const others = calendars.filter((one) => !chosen.includes(one.id) && isMeant(one, groups, find))
  return (
    <div className="calendar-finder">
      {calendars.filter((one) => chosen.includes(one.id)).map(each)}
      <input
        id={id}
        type="search"
        className="form-control"
        aria-label={t('findACalendar')}
        placeholder={t('findACalendar')}
        value={find}
        onChange={(event) => setFind(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
      />
      {others.length === 0 && isLooking && <p className="soft">{t('noCalendarIsCalledSo', { find })}</p>}
      {isLooking
        ? others.map(each)
        : laneGroups(others, groups).map((group) =>
            group.name === '' ? (
              group.calendars.map(each)
            ) : (
              <details key={group.name}>
                <summary>{t('groupOfCount', { name: group.name, count: group.calendars.length })}</summary>
                <div className="finder-group">{group.calendars.map(each)}</div>
              </details>
            ),
          )}
    </div>
  )
}
