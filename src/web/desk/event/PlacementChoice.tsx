import { useState } from 'react'
import { Plate } from '../../shared/Plate'
import type { Calendar } from '../types'
import { Levels } from '../Level'
import { CalendarFinder } from '../calendars/CalendarFinder'
import { useGroups } from '../calendars/queries'
import { t } from './words'

interface PlacementChoiceProps {
  calendars: Calendar[]
  home: string
  value: string[]
  /** What was placed when the form was opened. */
  before: string[]
  onChange: (placements: string[]) => void
}

/** Further calendars that show the event: one event, no copies. One by one, or a group at once. */
export function PlacementChoice({ calendars, home, value, before, onChange }: PlacementChoiceProps) {
  const [isOpen, setOpen] = useState(false)
  const groups = useGroups().data ?? []
  const offered = calendars.filter((calendar) => calendar.id !== home && (!calendar.isArchived || value.includes(calendar.id)))
  const asks = (calendar: Calendar) => !calendar.mayEdit && !before.includes(calendar.id)
  const toggle = (id: string) => onChange(value.includes(id) ? value.filter((one) => one !== id) : [...value, id])
  const addGroup = (ids: string[]) =>
    onChange([...new Set([...value, ...ids.filter((id) => offered.some((calendar) => calendar.id === id))])])
  return (
    <div className="placements">
      {value.length > 0 && (
        <ul className="placed-on" aria-label={t('alsoShownOn')}>
          <li className="placed-head" aria-hidden="true">
            {t('alsoShownOnBeside')}
          </li>
          {offered
            .filter((calendar) => value.includes(calendar.id))
            .map((calendar) => (
              <li key={calendar.id}>
                <Plate code={calendar.plate} colour={calendar.colour} /> {calendar.name}{' '}
                <Levels disclosure={calendar.disclosure} />
                {asks(calendar) && <span className="soft">{t('itsEditorsAreAsked')}</span>}
                <button type="button" aria-label={t('notOnName', { name: calendar.name })} onClick={() => toggle(calendar.id)}>
                  ×
                </button>
              </li>
            ))}
        </ul>
      )}
      {offered.length > 0 && (
        <button type="button" className="as-link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? t('thatIsAll') : t('placeOnMore')}
        </button>
      )}
      {isOpen && (
        <div className="placement-list">
          {groups.length > 0 && (
            <div className="group-buttons" role="group" aria-label={t('aWholeGroup')}>
              {groups.map((group) => (
                <button key={group.id} type="button" className="btn btn-outline-ink" onClick={() => addGroup(group.calendars)}>
                  {group.name}
                </button>
              ))}
            </div>
          )}
          <CalendarFinder calendars={offered} chosen={[]}>
            {(calendar) => (
              <label className="tick">
                <input type="checkbox" checked={value.includes(calendar.id)} onChange={() => toggle(calendar.id)} />
                <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {calendar.name}
                {asks(calendar) && <span className="soft">{t('itsEditorsAreAsked')}</span>}
              </label>
            )}
          </CalendarFinder>
        </div>
      )}
    </div>
  )
}
