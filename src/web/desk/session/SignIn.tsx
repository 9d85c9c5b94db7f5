import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { call } from '../api'
import { useRefresh } from '../queries'

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
      refresh.setSession(await call('POST', '/session', fields))
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
        <p>Calendars that a school, a club or an office keeps for others.</p>
        <label htmlFor="email">E-mail address</label>
        <input
          id="email"
          className="form-control"
          type="email"
          autoComplete="username"
          {...register('email', { required: true })}
        />
        {formState.errors.email && <p className="refusal">Give your e-mail address.</p>}
        <label htmlFor="password">Password</label>
        <input
          id="password"
          className="form-control"
          type="password"
          autoComplete="current-password"
          {...register('password', { required: true })}
        />
        {formState.errors.password && <p className="refusal">Give your password.</p>}
        {refused && (
          <p className="refusal" role="alert">
            {refused}
          </p>
        )}
        <button type="submit" className="btn btn-spruce" disabled={formState.isSubmitting}>
          Sign in
        </button>
        <p>
          <Link to="/forgotten">Password forgotten?</Link>
        </p>
      </form>
    </main>
  )
}
