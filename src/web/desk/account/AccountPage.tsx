import { useState, type FormEvent } from 'react'
import { useNavigate } from 'react-router'
import { call } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { isAsWanted, languages } from '../language'
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
      <Own key={person.name} name={person.name} language={person.language} />
      <section className="block">
        <h2>{t('whereYouAreSignedIn')}</h2>
        <p>{t('ifYouLeftYourselfSigned')}</p>
        <SignOutEverywhere />
      </section>
    </main>
  )
}

function Own({ name: start, language: spoken }: { name: string; language: string }) {
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const [name, setName] = useState(start)
  const [language, setLanguage] = useState(spoken)
  const [currentPassword, setCurrent] = useState('')
  const [newPassword, setNew] = useState('')
  const save = async (event: FormEvent) => {
    event.preventDefault()
    const done = await post(() => call('PUT', '/account', { name, language, currentPassword, newPassword }))
    if (!done) return
    if (!isAsWanted()) location.reload()
    await refresh.session()
    setCurrent('')
    setNew('')
    toast(newPassword ? t('savedYourOtherSessionsHave') : t('saved'))
  }
  return (
    <form className="block" onSubmit={save} noValidate>
      <h2>{t('nameAndPassword')}</h2>
      <OwnNameField problem={problem} value={name} onChange={setName} />
      <div className="field">
        <label htmlFor="language">{t('language')}</label>
        <select id="language" className="form-select" value={language} onChange={(event) => setLanguage(event.target.value)}>
          <option value="">{t('asTheBrowserAsks')}</option>
          {Object.entries(languages).map(([code, name]) => (
            <option key={code} value={code} lang={code}>
              {name}
            </option>
          ))}
        </select>
      </div>
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
      <WhatWasRefused problem={problem} fields={['name', 'language', 'newPassword', 'currentPassword']} />
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
