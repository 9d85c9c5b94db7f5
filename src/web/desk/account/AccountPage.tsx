import { useState, type FormEvent } from 'react'
import { useNavigate } from 'react-router'
import { call } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { NewPasswordField, OwnNameField } from '../PersonFields'
import { useRefresh, useSession } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'

/** One's own name, password and sessions. */
export function AccountPage() {
  const person = useSession().data?.person
  if (!person) return null
  return (
    <main className="page narrow">
      <h1>Your account</h1>
      <p className="soft">{person.email}</p>
      <Own key={person.name} name={person.name} />
      <section className="block">
        <h2>Where you are signed in</h2>
        <p>If you left yourself signed in somewhere, or lost a device, end every session at once. You sign in again here.</p>
        <SignOutEverywhere />
      </section>
    </main>
  )
}

function Own({ name: start }: { name: string }) {
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const [name, setName] = useState(start)
  const [currentPassword, setCurrent] = useState('')
  const [newPassword, setNew] = useState('')
  const save = async (event: FormEvent) => {
    event.preventDefault()
    const done = await post(() => call('PUT', '/account', { name, currentPassword, newPassword }))
    if (!done) return
    await refresh.session()
    setCurrent('')
    setNew('')
    toast(newPassword ? 'Saved. Your other sessions have ended.' : 'Saved.')
  }
  return (
    <form className="block" onSubmit={save} noValidate>
      <h2>Name and password</h2>
      <OwnNameField problem={problem} value={name} onChange={setName} />
      <NewPasswordField
        id="newPassword"
        label="New password"
        problem={problem}
        about="Leave it empty to keep the one you have. At least 12 characters."
        value={newPassword}
        onChange={setNew}
      />
      {newPassword !== '' && (
        <Field
          id="currentPassword"
          label="Password until now"
          type="password"
          problem={problem}
          autoComplete="current-password"
          value={currentPassword}
          onChange={(event) => setCurrent(event.target.value)}
        />
      )}
      <WhatWasRefused problem={problem} fields={['name', 'newPassword', 'currentPassword']} />
      <button type="submit" className="btn btn-spruce" disabled={isBusy}>
        Save
      </button>
    </form>
  )
}

function SignOutEverywhere() {
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const navigate = useNavigate()
  const end = async () => {
    if (!(await post(() => call('DELETE', '/session/everywhere')))) return
    await navigate('/plan')
    await refresh.forgetAll()
  }
  return (
    <>
      <WhatWasRefused problem={problem} fields={[]} />
      <button type="button" className="btn btn-outline-ink" disabled={isBusy} onClick={end}>
        Sign out everywhere
      </button>
    </>
  )
}
