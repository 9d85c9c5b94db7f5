import { useState, type FormEvent } from 'react'
import { Link, useLocation } from 'react-router'
import { call } from '../api'
import { WhatWasRefused } from '../Field'
import { NewPasswordField } from '../PersonFields'
import { useSession } from './queries'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { Door } from './Door'
import { t } from './words'

/** Where the link for a new password leads. */
export function ResetPage() {
  const secret = useLocation().hash.slice(1)
  useSession()
  const { problem, isBusy, post } = usePost()
  const { values, text } = useFields({ password: '' })
  const [isDone, setDone] = useState(false)
  const set = async (event: FormEvent) => {
    event.preventDefault()
    if (await post(() => call('POST', '/password-resets/set', { secret, ...values }))) setDone(true)
  }
  if (isDone)
    return (
      <Door>
        <h1>{t('yourNewPasswordHolds')}</h1>
        <p>{t('whereverYouWereSignedIn')}</p>
        <p>
          <Link className="btn btn-spruce" to="/plan">
            {t('signIn')}
          </Link>
        </p>
      </Door>
    )
  return (
    <Door>
      <h1>{t('aNewPassword')}</h1>
      <form onSubmit={set} noValidate>
        <NewPasswordField id="password" label={t('newPassword')} problem={problem} {...text('password')} />
        <WhatWasRefused problem={problem} fields={['password']} />
        <button type="submit" className="btn btn-spruce" disabled={isBusy}>
          {t('setThePassword')}
        </button>
      </form>
    </Door>
  )
}
