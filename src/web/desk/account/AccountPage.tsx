import { useState, type FormEvent } from 'react'
import { useNavigate } from 'react-router'
import { call } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { NewPasswordField, OwnNameField } from '../PersonFields'
import { useRefresh, useSession } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { t } from './words'

/** One's own name, password and sessions. */
export function AccountPage() {
  const person = useSession().data?.person
  if (!person) return null
  return (
    <main className="page narrow">
      <h1>{t('yourAccount')}</h1>
      <p className="soft">{person.email}</p>
      <Own key={person.name} name={person.name} />
      <section className="block">
        <h2>{t('whereYouAreSignedIn')}</h2>
        <p>{t('ifYouLeftYourselfSigned')}</p>
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
    toast(newPassword ? t('savedYourOtherSessionsHave') : t('saved'))
  }
  return (
    <form className="block" onSubmit={save} noValidate>
      <h2>{t('nameAndPassword')}</h2>
      <OwnNameField problem={problem} value={name} onChange={setName} />
      <NewPasswordField
        id="newPassword"
        label={t('newPassword')}
        problem={problem}
        about={t('leaveItEmptyToKeep')}
        value={newPassword}
        onChange={setNew}
      />
      {newPassword !== '' && (
        <Field
          id="currentPassword"
          label={t('passwordUntilNow')}
          type="password"
          problem={problem}
          autoComplete="current-password"
          value={currentPassword}
          onChange={(event) => setCurrent(event.target.value)}
        />
      )}
      <WhatWasRefused problem={problem} fields={['name', 'newPassword', 'currentPassword']} />
      <button type="submit" className="btn btn-spruce" disabled={isBusy}>
        {t('save')}
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
        {t('signOutEverywhere')}
      </button>
    </>
  )
}
