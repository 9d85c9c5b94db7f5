import { Field } from './Field'
import type { Problem } from './api'

interface NewPasswordFieldProps {
  id: string
  label: string
  problem: Problem | null
  value: string
  onChange: (password: string) => void
  about?: string
}

/** A password that somebody chooses. */
export function NewPasswordField({
  onChange,
  about = 'At least 12 characters. A few words do well.',
  ...field
}: NewPasswordFieldProps) {
  return (
    <Field
      {...field}
      type="password"
      autoComplete="new-password"
      about={about}
      onChange={(event) => onChange(event.target.value)}
    />
  )
}

/** The name under which others see somebody. */
export function OwnNameField(field: { problem: Problem | null; value: string; onChange: (name: string) => void }) {
  return (
    <Field
      {...field}
      id="name"
      label="Your name, as others see it"
      autoComplete="name"
      onChange={(event) => field.onChange(event.target.value)}
    />
  )
}
