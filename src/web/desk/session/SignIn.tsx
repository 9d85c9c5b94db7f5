import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { call } from '../api'
import { isAsWanted } from '../language'
import { useRefresh } from '../queries'
import { t } from './words'

interface Fields {
  email: string
  password: string
}

export function SignIn() {
  const { register, handleSubmit, formState } = useForm<Fields>({ defaultValues: { email: '', password: '' } })
  const [refused, setRefused] = useState('')
  const refresh = useRefresh()
  const submit = handleSubmit(async (fields) => {
    setRefused('')
    try {
      const session = await call('POST', '/session', fields)
      if (isAsWanted()) refresh.setSession(session)
      else location.reload()
    } catch (problem) {
      setRefused(problem instanceof Error ? problem.message : String(problem))
      await refresh.session()
    }
  })
  return (
    <main className="sign-in">
      <form onSubmit={submit} noValidate>
        <h1>
          <img src="/mark.svg" alt="" width="32" height="32" /> <span className="wordmark">valtro</span>
        </h1>
        <p>{t('calendarsThatASchoolA')}</p>
        <label htmlFor="email">{t('eMailAddress')}</label>
        <input
          id="email"
          className="form-control"
          type="email"
          autoComplete="username"
          {...register('email', { required: true })}
        />
        {formState.errors.email && <p className="refusal">{t('giveYourEMailAddress')}</p>}
        <label htmlFor="password">{t('password')}</label>
        <input
          id="password"
          className="form-control"
          type="password"
          autoComplete="current-password"
          {...register('password', { required: true })}
        />
        {formState.errors.password && <p className="refusal">{t('giveYourPassword')}</p>}
        {refused && (
          <p className="refusal" role="alert">
            {refused}
          </p>
        )}
        <button type="submit" className="btn btn-spruce" disabled={formState.isSubmitting}>
          {t('signIn')}
        </button>
        <p>
          <Link to="/forgotten">{t('passwordForgottenAsk')}</Link>
        </p>
      </form>
    </main>
  )
}
