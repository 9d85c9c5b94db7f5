import { useState, type FormEvent } from 'react'
import { Link, useLocation } from 'react-router'
import { call } from '../api'
import { WhatWasRefused } from '../Field'
import { NewPasswordField } from '../PersonFields'
import { useSession } from '../queries'
import { usePost } from '../usePost'
import { Door } from './Door'

/** Where the link for a new password leads. */
export function ResetPage() {
  const secret = useLocation().hash.slice(1)
  useSession()
  const { problem, isBusy, post } = usePost()
  const [password, setPassword] = useState('')
  const [isDone, setDone] = useState(false)
  const set = async (event: FormEvent) => {
    event.preventDefault()
    if (await post(() => call('POST', '/password-resets/set', { secret, password }))) setDone(true)
  }
  if (isDone)
    return (
      <Door>
        <h1>Your new password holds</h1>
        <p>Wherever you were signed in, you are not any more.</p>
        <p>
          <Link className="btn btn-spruce" to="/plan">
            Sign in
          </Link>
        </p>
      </Door>
    )
  return (
    <Door>
      <h1>A new password</h1>
      <form onSubmit={set} noValidate>
        <NewPasswordField id="password" label="New password" problem={problem} value={password} onChange={setPassword} />
        <WhatWasRefused problem={problem} fields={['password']} />
        <button type="submit" className="btn btn-spruce" disabled={isBusy}>
          Set the password
        </button>
      </form>
    </Door>
  )
}
