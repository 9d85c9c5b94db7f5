import { call } from '../api'
import { Refusal } from '../Refusal'
import { useTyped } from '../useTyped'
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
  const typed = useTyped<string>(async (text, signal) => {
    const { time } = await call('POST', '/typed/time', { text }, { signal })
    return time ? [time.slice(0, 5)] : []
  }, onChange)
  const why = typed.isUnread && t('typedIsNoTimeWrite', { typed: typed.text })
  return (
    <span className="field-with-button">
      <input
        id={id}
        className="form-control time-field"
        aria-label={label}
        aria-invalid={typed.isUnread || refusal !== undefined}
        aria-describedby={`${id}-refusal`}
        autoComplete="off"
        inputMode="numeric"
        value={typed.text ?? value ?? ''}
        onChange={(event) => typed.type(event.target.value)}
        onFocus={(event) => typed.enter(event.target.value)}
        onBlur={typed.leave}
      />
      <Refusal id={`${id}-refusal`} text={typed.problem?.message ?? (why || refusal)} />
    </span>
  )
}
