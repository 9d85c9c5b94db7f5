import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { FillableOptions } from '../calendars/FillableOptions'
import { sayDay } from '../../shared/days'
import { call } from '../api'
import { useCalendars, useColours, usePlate } from '../calendars/queries'
import { Field, WhatWasRefused } from '../Field'
import { freeColour } from '../hues'
import { disclosures } from '../openness'
import type { Problem } from '../Problem'
import { useOrganisation, useSession } from '../session/queries'
import type { SourceAddress, SourceLook, SourceRules } from '../types'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { AddressFields, noAddress } from './AddressFields'
import { rhythms, sayBytes, sayRhythm } from './rhythm'
import { noRules } from './rules'
import { t } from './words'

/** An address is looked at first, then it is said where its entries go. */
export function FollowPage() {
  const [address, setAddress] = useState<SourceAddress>(noAddress)
  const [look, setLook] = useState<SourceLook | null>(null)
  const { problem, isBusy, post } = usePost()
  return (
    <main className="page intake follow">
      <p className="soft">
        <Link to="/intake">{t('intake')}</Link>
      </p>
      <h1>{t('followAnAddress')}</h1>
      <p className="soft">{t('whatIsFollowed')}</p>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void post(async () => {
            setLook(null)
            setLook(await call('POST', '/sources/look', address))
          })
        }}
      >
        <AddressFields
          value={address}
          problem={problem}
          onChange={(typed) => {
            setAddress(typed)
            setLook(null)
          }}
        />
        <button type="submit" className="btn btn-outline-ink" disabled={isBusy || (address.address ?? '').trim() === ''}>
          {isBusy ? t('looking') : t('lookAtIt')}
        </button>
        {isBusy && (
          <p role="status" className="soft">
            {t('itMayTakeHalfAMinute')}
          </p>
        )}
        <WhatWasRefused problem={problem} fields={['address', 'user', 'headerName', 'headerValue']} />
      </form>
      {look && <Looked key={JSON.stringify(look)} look={look} address={address} />}
    </main>
  )
}

function Looked({ look, address }: { look: SourceLook; address: SourceAddress }) {
  const { locale } = useOrganisation()
  const day = (one: string) => sayDay(one, locale, { day: 'numeric', month: 'long', year: 'numeric' })
  return (
    <>
      <section aria-labelledby="what-is-there" className="source-look">
        <h2 id="what-is-there">{t('whatIsThere')}</h2>
        <p>
          <b>{look.name}</b>, {t('entries', { count: look.count })}
          {look.first && look.last && <>, {t('firstToLast', { first: day(look.first), last: day(look.last) })}</>};{' '}
          {sayBytes(look.bytes)}
          {look.unreadable > 0 && <>; {t('unreadable', { count: look.unreadable })}</>}
        </p>
        <p className="soft">{t('timesAreRead', { zone: look.zone })}</p>
        <ul className="plain-list">
          {look.entries.map((entry) => (
            <li key={`${entry.title} ${entry.words}`}>
              <b>{entry.title}</b> <span className="soft">{entry.words}</span>
            </li>
          ))}
          {look.count > look.entries.length && (
            <li className="soft">{t('andMore', { count: look.count - look.entries.length })}</li>
          )}
        </ul>
      </section>
      <WhereItGoes look={look} address={address} />
    </>
  )
}

type Where = 'own' | 'one' | 'rules'

function WhereItGoes({ look, address }: { look: SourceLook; address: SourceAddress }) {
  const isAdministrator = useSession().data?.person?.isAdministrator ?? false
  const isSeveral = look.beginnings.length > 1
  const { values, text, choice } = useFields({
    where: (isSeveral ? 'rules' : isAdministrator ? 'own' : 'one') as Where,
    name: look.name,
    every: '120',
    calendarId: '',
    plate: '',
  })
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const navigate = useNavigate()
  const own = useOwnCalendar(values.name, values.plate)
  const rules = (): SourceRules =>
    values.where === 'one' ? { ...noRules, else: { to: 'calendar', calendarId: values.calendarId, as: 'asItCame' } } : noRules
  const follow = () =>
    void post(async () => {
      const { id } = await write('POST', '/sources', {
        source: { address, name: values.name, everyMinutes: Number(values.every), rules: rules() },
        own: values.where === 'own' ? own : null,
      })
      await navigate(`/intake/sources/${id}`)
    })
  return (
    <form
      className="source-where"
      onSubmit={(event) => {
        event.preventDefault()
        follow()
      }}
    >
      <h2>{t('whereItGoes')}</h2>
      <fieldset>
        <legend className="visually-hidden">{t('whereItGoes')}</legend>
        {isAdministrator && (
          <label className="source-choice">
            <input type="radio" {...choice('where', 'own')} /> <span>{t('onItsOwn')}</span>
          </label>
        )}
        <label className="source-choice">
          <input type="radio" {...choice('where', 'one')} /> <span>{t('onOne')}</span>
        </label>
        <label className="source-choice">
          <input type="radio" {...choice('where', 'rules')} />{' '}
          <span>
            {t('byRules')}
            {isSeveral && (
              <span className="soft"> {t('severalBegin', { words: look.beginnings.map((one) => one.word).join(', ') })}</span>
            )}
          </span>
        </label>
      </fieldset>
      <Field id="name" label={t('name')} problem={problem} {...text('name')} />
      {values.where === 'own' && (
        <Field id="plate" label={t('plate')} problem={problem} placeholder={own.plate} maxLength={4} {...text('plate')} />
      )}
      {values.where === 'one' && <OneCalendar problem={problem} {...text('calendarId')} />}
      <label htmlFor="every">{t('howOften')}</label>
      <select id="every" className="form-select inline-select" {...text('every')}>
        {rhythms.map((one) => (
          <option key={one} value={one}>
            {sayRhythm(one)}
          </option>
        ))}
      </select>
      <p className="soft">{t(values.where === 'rules' ? 'rulesComeNext' : 'membersSeeItFirst')}</p>
      <button type="submit" className="btn btn-spruce" disabled={isBusy || (values.where === 'one' && values.calendarId === '')}>
        {t('followIt')}
      </button>
      <WhatWasRefused problem={problem} fields={['name', 'plate', 'else']} />
    </form>
  )
}

function OneCalendar({ problem, ...select }: { problem: Problem | null } & ReturnType<ReturnType<typeof useFields>['text']>) {
  return (
    <div className="field">
      <label htmlFor="calendar">{t('calendar')}</label>
      <select id="calendar" className="form-select inline-select" aria-invalid={problem?.on('else') !== undefined} {...select}>
        <option value="">{t('choose')}</option>
        <FillableOptions />
      </select>
    </div>
  )
}

/** A calendar that it fills alone, which members see. */
function useOwnCalendar(name: string, typed: string) {
  const calendars = useCalendars().data ?? []
  const colours = useColours().data ?? []
  const { zone } = useOrganisation()
  const plate = usePlate(name, true).data?.plate ?? ''
  const colour = freeColour(colours, calendars)
  return {
    name,
    plate: typed.trim() === '' ? plate : typed,
    colour: colour?.name ?? null,
    zone,
    description: '',
    disclosure: disclosures.members,
    version: null,
    readerships: [],
    requiresSignOff: true,
    like: null,
  }
}
