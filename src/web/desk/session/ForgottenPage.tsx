import { useState, type FormEvent } from 'react'
import { Link } from 'react-router'
import { call } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { useSession } from './queries'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { Door } from './Door'
import { t } from './words'

/** Asks for a link to set a new password. The answer is the same whoever asks. */
export function ForgottenPage() {
  useSession()
  const { problem, isBusy, post } = usePost()
  const { values, text } = useFields({ email: '' })
  const [isSent, setSent] = useState(false)
  const ask = async (event: FormEvent) => {
    event.preventDefault()
    if (await post(() => call('POST', '/password-resets', values))) setSent(true)
  }
  return (
    <Door>
      <h1>{t('passwordForgotten')}</h1>
      {isSent ? (
        <p role="status">{t('ifThereIsAnAccount', values)}</p>
      ) : (
        <form onSubmit={ask} noValidate>
          <p>{t('weSendYouALink')}</p>
          <Field id="email" label={t('eMailAddress')} type="email" problem={problem} autoComplete="username" {...text('email')} />
          <WhatWasRefused problem={problem} fields={[]} />
          <button type="submit" className="btn btn-spruce" disabled={isBusy || values.email.trim() === ''}>
            {t('sendMeTheLink')}
          </button>
        </form>
      )}
      <p>
        <Link to="/plan">{t('backToTheSignIn')}</Link>
      </p>
    </Door>
  )
}
