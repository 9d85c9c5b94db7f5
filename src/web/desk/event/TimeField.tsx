import { useState } from 'react'
import { readTime } from '../../shared/typed'
import { Refusal } from '../Refusal'
import { t } from './words'

interface TimeFieldProps {
  id: string
  label: string
  value: string | null
  refusal?: string
  onChange: (time: string | null) => void
}

/** A time typed as people type it; it reads 14:00 when they leave the field. */
export function TimeField({ id, label, value, refusal, onChange }: TimeFieldProps) {
  const [typed, setTyped] = useState<string | null>(null)
  const unread = typed !== null && typed.trim() !== '' && readTime(typed, t('oClock')) === null
  return (
    <span className="field-with-button">
      <input
        id={id}
        className="form-control time-field"
        aria-label={label}
        aria-invalid={unread || refusal !== undefined}
        aria-describedby={`${id}-refusal`}
        autoComplete="off"
        inputMode="numeric"
        value={typed ?? value ?? ''}
        onChange={(event) => {
          setTyped(event.target.value)
          onChange(readTime(event.target.value, t('oClock')))
        }}
        onBlur={() => !unread && setTyped(null)}
      />
      <Refusal id={`${id}-refusal`} text={unread ? t('typedIsNoTimeWrite', { typed }) : refusal} />
    </span>
  )
}
