import type { FormEvent } from 'react'
import { Link, useNavigate } from 'react-router'
import { call } from '../api'
import { OwnAddress } from '../editions/OwnAddress'
import { Field, WhatWasRefused } from '../Field'
import { isAsWanted, languages } from '../language'
import { NewPasswordField, OwnNameField } from '../PersonFields'
import { useRefresh } from '../refresh'
import { useSeenAs } from '../seeAs'
import { useWrite } from '../useWrite'
import { useSession } from '../session/queries'
import { useToast } from '../Toasts'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { Programs } from './Programs'
import { t } from './words'

/** One's own name, password and sessions. */
export function AccountPage() {
  const person = useSession().data?.person
  const isOwnView = useSeenAs() === null
  if (!person) return null
  return (
    <main className="page narrow">
      <h1>{t('yourAccount')}</h1>
      <p className="soft">{person.email}</p>
      <Own key={person.name} name={person.name} language={person.language} />
      <section className="block" id="my-events">
        <h2>{t('myEvents')}</h2>
        <p>
          {t('whatYouAreResponsibleFor')} <Link to="/plan?view=list&span=year&person=me">{t('lookAtThemOnThePlan')}</Link>
        </p>
        {isOwnView && <OwnAddress path="/account/events/link" />}
      </section>
      {isOwnView && (
        <section className="block" id="programs">
          <h2>{t('programs')}</h2>
          <p>{t('whatProgramsGet')}</p>
          <Programs />
        </section>
      )}
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
  const write = useWrite()
  const toast = useToast()
  const { values, set, text } = useFields({ name: start, language: spoken, currentPassword: '', newPassword: '' })
  const save = async (event: FormEvent) => {
    event.preventDefault()
    const done = await post(async () => void (await write('PUT', '/account', values)))
    if (!done) return
    if (!isAsWanted()) location.reload()
    await refresh.session()
    set({ currentPassword: '', newPassword: '' })
    toast(values.newPassword ? t('savedYourOtherSessionsHave') : t('saved'))
  }
  return (
    <form className="block" onSubmit={save} noValidate>
      <h2>{t('nameAndPassword')}</h2>
      <OwnNameField problem={problem} {...text('name')} />
      <div className="field">
        <label htmlFor="language">{t('language')}</label>
        <select id="language" className="form-select" {...text('language')}>
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
        {...text('newPassword')}
      />
      {values.newPassword !== '' && (
        <Field
          id="currentPassword"
          label={t('passwordUntilNow')}
          type="password"
          problem={problem}
          autoComplete="current-password"
          {...text('currentPassword')}
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
