import type { ReactNode } from 'react'

/** One of the five steps. All of them are in sight; the number says only in which order one thinks of them. */
export function Step({ number, title, about, children }: { number: number; title: string; about: string; children: ReactNode }) {
  return (
    <section className="step" aria-labelledby={`step-${number}`}>
      <span className="step-number" aria-hidden="true">
        {number}
      </span>
      <div className="step-body">
        <h2 id={`step-${number}`}>
          {title} <small>{about}</small>
        </h2>
        {children}
      </div>
    </section>
  )
}

interface ChoiceProps<Value extends string> {
  label: string
  value: Value
  options: Partial<Record<Value, string>>
  onChange: (value: Value) => void
}

/** A choice that reads as a part of a sentence. */
export function Choice<Value extends string>({ label, value, options, onChange }: ChoiceProps<Value>) {
  return (
    <select
      className="form-select inline-choice"
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value as Value)}
    >
      {(Object.entries(options) as [Value, string][]).map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  )
}

export function Tick({
  checked,
  onChange,
  children,
  disabled = false,
}: {
  checked: boolean
  onChange: (checked: boolean) => void
  children: ReactNode
  disabled?: boolean
}) {
  return (
    <label className="tick">
      <input type="checkbox" checked={checked} disabled={disabled} onChange={(event) => onChange(event.target.checked)} />{' '}
      {children}
    </label>
  )
}
