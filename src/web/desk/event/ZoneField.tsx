import { useState } from 'react'
import { placeOfZone } from '../../shared/days'
import { useZones } from '../calendars/queries'
import { ZoneChoice } from '../ZoneChoice'
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
  // No calendar is chosen yet, and nobody has said another clock.
  if (value === '') return null
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
    <ZoneChoice
      aria-label={t('timeZone')}
      value={value}
      zones={zones}
      onChange={(zone) => onChange(zone === calendarZone ? null : zone)}
    />
  )
}
