import { useState, type FormEvent } from 'react'
import { Link } from 'react-router'
import { call } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { useSession } from '../queries'
import { usePost } from '../usePost'
import { Door } from './Door'

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
      <h1>Password forgotten</h1>
      {isSent ? (
        <p role="status">
          If there is an account with the address {email}, a mail is on its way to it. Its link works once, for two hours.
        </p>
      ) : (
        <form onSubmit={ask} noValidate>
          <p>We send you a link with which you set a new one.</p>
          <Field
            id="email"
            label="E-mail address"
            type="email"
            problem={problem}
            autoComplete="username"
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
          <WhatWasRefused problem={problem} fields={[]} />
          <button type="submit" className="btn btn-spruce" disabled={isBusy || email.trim() === ''}>
            Send me the link
          </button>
        </form>
      )}
      <p>
        <Link to="/plan">Back to the sign-in</Link>
      </p>
    </Door>
  )
}
