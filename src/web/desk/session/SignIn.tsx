import { useState, type FormEvent } from 'react'
import { Link } from 'react-router'
import { call } from '../api'
import { isAsWanted } from '../language'
import { useRefresh } from '../refresh'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { t } from './words'

export function SignIn() {
  const { values, text } = useFields({ email: '', password: '' })
  const [isTried, setTried] = useState(false)
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    setTried(true)
    if (values.email === '' || values.password === '') return
    void post(async () => {
      try {
        const session = await call('POST', '/session', values)
        if (isAsWanted()) refresh.setSession(session)
        else location.reload()
      } catch (refused) {
        await refresh.session()
        throw refused
      }
    })
  }
  return (
    <main className="sign-in">
      <form onSubmit={submit} noValidate>
        <h1>
          <img src="/mark.svg" alt="" width="32" height="32" /> <span className="wordmark">valtro</span>
        </h1>
        <p>{t('calendarsThatASchoolA')}</p>
        <label htmlFor="email">{t('eMailAddress')}</label>
        <input id="email" className="form-control" type="email" autoComplete="username" {...text('email')} />
        {isTried && values.email === '' && <p className="refusal">{t('giveYourEMailAddress')}</p>}
        <label htmlFor="password">{t('password')}</label>
        <input id="password" className="form-control" type="password" autoComplete="current-password" {...text('password')} />
        {isTried && values.password === '' && <p className="refusal">{t('giveYourPassword')}</p>}
        {problem && (
          <p className="refusal" role="alert">
            {problem.message}
          </p>
        )}
        <button type="submit" className="btn btn-spruce" disabled={isBusy}>
          {t('signIn')}
        </button>
        <p>
          <Link to="/forgotten">{t('passwordForgottenAsk')}</Link>
        </p>
      </form>
    </main>
  )
}
