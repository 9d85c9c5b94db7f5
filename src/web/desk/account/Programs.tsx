import { useQuery } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { call } from '../api'
import { Copyable } from '../calendars/Copyable'
import { sayAgo } from '../Delivery'
import { Field } from '../Field'
import { keys } from '../keys'
import type { AppPassword, MadeAppPassword } from '../types'
import { usePost } from '../usePost'
import { useAttempt, useWrite } from '../useWrite'
import { t } from './words'

/** Passwords for calendar programs: each is shown once, and can be withdrawn alone. */
export function Programs() {
  const programs = useQuery({ queryKey: keys.programs, queryFn: () => call('GET', '/account/programs') })
  const [name, setName] = useState('')
  const [made, setMade] = useState<MadeAppPassword | null>(null)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const make = (event: FormEvent) => {
    event.preventDefault()
    void post(async () => {
      setMade(await write('POST', '/account/programs', { program: name }))
      setName('')
    })
  }
  return (
    <>
      {programs.data && programs.data.length > 0 && (
        <ul className="plain-list programs">
          {programs.data.map((one) => (
            <Program key={one.id} program={one} />
          ))}
        </ul>
      )}
      {made && (
        <div className="notice" role="status">
          <p>{t('shownThisOnce')}</p>
          <Copyable name={t('serverAddress')} button={t('copyTheAddress')} text={made.address} />
          <Copyable name={t('userName')} button={t('copyTheUser')} text={made.user} />
          <Copyable name={t('programPassword')} button={t('copyThePassword')} text={made.secret} />
        </div>
      )}
      <form onSubmit={make} noValidate>
        <Field
          id="program"
          label={t('whichProgram')}
          problem={problem}
          placeholder={t('programExample')}
          autoComplete="off"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="btn btn-outline-ink" disabled={isBusy}>
          {t('makeAPassword')}
        </button>
      </form>
    </>
  )
}

function Program({ program }: { program: AppPassword }) {
  const write = useWrite()
  const attempt = useAttempt()
  return (
    <li>
      <b>{program.name}</b>{' '}
      <span className="soft">
        {t('madeAgo', { ago: sayAgo(program.madeAt) })} ·{' '}
        {program.usedAt ? t('usedAgo', { ago: sayAgo(program.usedAt) }) : t('neverUsed')}
      </span>{' '}
      <button
        type="button"
        className="btn btn-outline-ink"
        aria-label={t('withdrawNamed', { name: program.name })}
        onClick={() => void attempt(() => write('DELETE', `/account/programs/${program.id}`))}
      >
        {t('withdraw')}
      </button>
    </li>
  )
}
