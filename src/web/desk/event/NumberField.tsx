interface NumberFieldProps {
  label: string
  value: number
  most?: number
  step?: number
  onChange: (value: number) => void
}

/** A whole number from 0 on, as a word of a sentence; an empty field is 0. */
export function NumberField({ label, value, most, step, onChange }: NumberFieldProps) {
  return (
    <input
      type="number"
      min="0"
      max={most}
      step={step}
      className="form-control inline-number"
      aria-label={label}
      placeholder="0"
      value={value || ''}
      onChange={(event) => onChange(Math.trunc(event.target.valueAsNumber) || 0)}
    />
  )
}
