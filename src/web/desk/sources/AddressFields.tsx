import { Field } from '../Field'
import type { Problem } from '../Problem'
import type { SourceAddress } from '../types'
import { t } from './words'

export const noAddress: SourceAddress = { address: '', user: '', password: '', headerName: '', headerValue: '' }

interface AddressFieldsProps {
  value: SourceAddress
  problem: Problem | null
  onChange: (value: SourceAddress) => void
}

/** An address, and what it wants to be told before it answers. */
export function AddressFields({ value, problem, onChange }: AddressFieldsProps) {
  const field = (name: keyof SourceAddress, label: string, type = 'text') => (
    <Field
      id={name}
      label={label}
      type={type}
      autoComplete="off"
      spellCheck={false}
      problem={problem}
      value={value[name] ?? ''}
      onChange={(event) => onChange({ ...value, [name]: event.target.value })}
    />
  )
  return (
    <>
      <Field
        id="address"
        label={t('address')}
        about={t('addressIsKept')}
        placeholder={t('addressExample')}
        autoComplete="off"
        spellCheck={false}
        inputMode="url"
        problem={problem}
        value={value.address ?? ''}
        onChange={(event) => onChange({ ...value, address: event.target.value })}
      />
      <details
        className="source-secrets"
        open={['user', 'headerName', 'headerValue'].some((name) => problem?.on(name)) || undefined}
      >
        <summary>{t('wantsAPassword')}</summary>
        <div className="source-pair">
          {field('user', t('user'))}
          {field('password', t('password'), 'password')}
        </div>
        <div className="source-pair">
          {field('headerName', t('headerName'))}
          {field('headerValue', t('headerValue'), 'password')}
        </div>
      </details>
    </>
  )
}
