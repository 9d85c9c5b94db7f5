import { Link, useSearchParams } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { Calendar } from '../types'
import { useTemplates } from './queries'
import { t } from './words'

/** Patterns from which a new event can start: those of the calendar that is chosen first. */
export function StartFrom({ calendars, chosen }: { calendars: Calendar[]; chosen: string }) {
  const [parameters] = useSearchParams()
  const templates = (useTemplates(true).data ?? []).filter((one) => !one.isUsual)
  if (templates.length === 0) return null
  const sorted = [...templates].sort(
    (one, other) => Number(one.calendarId !== chosen) - Number(other.calendarId !== chosen) || one.name.localeCompare(other.name),
  )
  const hrefOf = (id: string) => {
    const query = new URLSearchParams(parameters)
    query.set('template', id)
    return `/events/new?${query.toString()}`
  }
  return (
    <nav className="start-from" aria-label={t('startFrom')}>
      <span className="soft">{t('startFrom')}</span>
      {sorted.slice(0, 12).map((one) => {
        const calendar = calendars.find((known) => known.id === one.calendarId)
        return (
          <Link key={one.id} to={hrefOf(one.id)} className="btn btn-outline-ink" replace>
            {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} {one.name}
          </Link>
        )
      })}
    </nav>
  )
}
