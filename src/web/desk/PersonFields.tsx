import { Field } from './Field'
import type { Problem } from './api'
import { t } from './words'

interface NewPasswordFieldProps {
  id: string
  label: string
  problem: Problem | null
  value: string
  onChange: (password: string) => void
  about?: string
}

/** A password that somebody chooses. */
export function NewPasswordField({ onChange, about = t('whatAPasswordNeeds'), ...field }: NewPasswordFieldProps) {
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
      label={t('yourNameAsOthersSee')}
      autoComplete="name"
      onChange={(event) => field.onChange(event.target.value)}
    />
  )
}
