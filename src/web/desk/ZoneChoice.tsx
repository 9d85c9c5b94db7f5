import { useId, useState } from 'react'
import type { Zone } from './types'
import { t } from './words'
import { sayZone, zonesFor } from './zones'

interface ZoneChoiceProps {
  id?: string
  'aria-label'?: string
  'aria-invalid'?: boolean
  'aria-describedby'?: string
  /** Its name, or what somebody typed instead. */
  value: string
  zones: Zone[]
  onChange: (zone: string) => void
}

/** A time zone, by a city or a country that is in it, with its offset (the combobox of the ARIA Authoring Practices). */
export function ZoneChoice({ value, zones, onChange, ...field }: ZoneChoiceProps) {
  const known = zones.find((zone) => zone.name === value)
  const [typed, setTyped] = useState<string | null>(null)
  const [at, setAt] = useState(0)
  const listed = useId()
  const found = typed === null ? [] : zonesFor(typed, zones)
  const marked = Math.min(at, found.length - 1)
  const choose = (zone: Zone) => {
    setTyped(null)
    onChange(zone.name)
  }
  /** What is left half typed is what it can only mean; else it stands, and is said to be none. */
  const settle = () => {
    if (typed === null) return
    const [first, second] = zonesFor(typed, zones)
    if (first && !second) return choose(first)
    setTyped(null)
    if (typed.trim() !== '') onChange(zones.find((zone) => sayZone(zone) === typed)?.name ?? typed.trim())
  }
  const onKeyDown = (event: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (step && found.length > 0) {
      event.preventDefault()
      setAt((marked + step + found.length) % found.length)
    } else if (event.key === 'Enter' && found[marked]) {
      event.preventDefault()
      choose(found[marked])
    } else if (event.key === 'Enter') settle()
    else if (event.key === 'Escape' && typed !== null) {
      event.stopPropagation()
      setTyped(null)
    }
  }
  return (
    <span className="zone-choice">
      <input
        {...field}
        className="form-control"
        role="combobox"
        aria-expanded={found.length > 0}
        aria-controls={listed}
        aria-autocomplete="list"
        aria-activedescendant={found[marked] ? `${listed}-${marked}` : undefined}
        autoComplete="off"
        value={typed ?? (known ? sayZone(known) : value)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyped(event.target.value)
          setAt(0)
        }}
        onKeyDown={onKeyDown}
        onBlur={settle}
      />
      <ul id={listed} role="listbox" aria-label={t('timeZones')} className="zone-found" hidden={found.length === 0}>
        {found.map((zone, index) => (
          <li
            key={zone.name}
            id={`${listed}-${index}`}
            role="option"
            aria-selected={index === marked}
            onMouseDown={(event) => event.preventDefault()}
            onMouseMove={() => setAt(index)}
            onClick={() => choose(zone)}
          >
            {sayZone(zone)} {zone.about !== '' && <small className="soft">{zone.about}</small>}
          </li>
        ))}
      </ul>
    </span>
  )
}
