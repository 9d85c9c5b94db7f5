import type { TargetOfEvent } from '../types'
import { t } from './words'

interface AlsoIntoProps {
  offered: TargetOfEvent[]
  value: string[]
  onChange: (targets: string[]) => void
}

/** Calendars elsewhere into which an event is written too. What takes all of its calendar has it anyway. */
export function AlsoInto({ offered, value, onChange }: AlsoIntoProps) {
  if (offered.length === 0) return null
  return (
    <fieldset className="also-into">
      <legend>{t('alsoInto')}</legend>
      {offered.map((one) => (
        <label key={one.id} className="tick">
          <input
            type="checkbox"
            checked={one.takesAll || value.includes(one.id)}
            disabled={one.takesAll}
            onChange={() => onChange(value.includes(one.id) ? value.filter((id) => id !== one.id) : [...value, one.id])}
          />
          {one.name} <span className="soft">{one.takesAll ? t('withAllOfIt') : one.shown}</span>
        </label>
      ))}
    </fieldset>
  )
}
