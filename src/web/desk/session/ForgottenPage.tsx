import { useState, type FormEvent } from 'react'
import { Link } from 'react-router'
import { call } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { useSession } from '../queries'
import { usePost } from '../usePost'
import { Door } from './Door'
import { t } from './words'

/** Asks for a link to set a new password. The answer is the same whoever asks. */
export function ForgottenPage() {
  useSession()
  const { problem, isBusy, post } = usePost()
  const [email, setEmail] = useState('')
  const [isSent, setSent] = useState(false)
  const ask = async (event: FormEvent) => {
    event.preventDefault()
    if (await post(() => call('POST', '/password-resets', { email }))) setSent(true)
  }
  return (
    <Door>
      <h1>{t('passwordForgotten')}</h1>
      {isSent ? (
        <p role="status">{t('ifThereIsAnAccount', { email })}</p>
      ) : (
        <form onSubmit={ask} noValidate>
          <p>{t('weSendYouALink')}</p>
          <Field
            id="email"
            label={t('eMailAddress')}
            type="email"
            problem={problem}
            autoComplete="username"
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
          <WhatWasRefused problem={problem} fields={[]} />
          <button type="submit" className="btn btn-spruce" disabled={isBusy || email.trim() === ''}>
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
