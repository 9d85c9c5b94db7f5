import type { ChangeEventHandler } from 'react'
import { Field } from './Field'
import type { Problem } from './Problem'
import { t } from './words'

interface LineProps {
  problem: Problem | null
  value: string
  onChange: ChangeEventHandler<HTMLInputElement>
}

interface NewPasswordFieldProps extends LineProps {
  id: string
  label: string
  about?: string
}

/** A password that somebody chooses. */
export function NewPasswordField({ about = t('whatAPasswordNeeds'), ...field }: NewPasswordFieldProps) {
  return <Field {...field} type="password" autoComplete="new-password" about={about} />
}

/** The name under which others see somebody. */
export function OwnNameField(field: LineProps) {
  return <Field {...field} id="name" label={t('yourNameAsOthersSee')} autoComplete="name" />
}
