import { useState } from 'react'
import { placeOfZone } from '../../shared/days'
import { useZones } from '../calendars/queries'
import { t } from './words'

interface ZoneFieldProps {
  value: string
  calendarZone: string
  onChange: (zone: string | null) => void
}

/** Which clock the times are on: the calendar's, unless somebody says otherwise. */
export function ZoneField({ value, calendarZone, onChange }: ZoneFieldProps) {
  const [isOpen, setOpen] = useState(value !== calendarZone)
  const zones = useZones().data ?? []
  if (!isOpen)
    return (
      <span className="soft">
        {t('timeOfPlace', { place: placeOfZone(value) })}{' '}
        <button type="button" className="as-link" onClick={() => setOpen(true)}>
          {t('anotherTimeZone')}
        </button>
      </span>
    )
  return (
    <select
      className="form-select zone-field"
      aria-label={t('timeZone')}
      value={value}
      onChange={(event) => onChange(event.target.value === calendarZone ? null : event.target.value)}
    >
      {!zones.some((zone) => zone.name === value) && <option value={value}>{value}</option>}
      {zones.map((zone) => (
        <option key={zone.name} value={zone.name}>
          {`${zone.name.replaceAll('_', ' ')} (UTC${zone.offset})`}
        </option>
      ))}
    </select>
  )
}
