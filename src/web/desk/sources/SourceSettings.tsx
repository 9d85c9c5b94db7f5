import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Field, WhatWasRefused } from '../Field'
import type { FollowedSource, SourceAddress, SourceRules } from '../types'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { useAttempt, useWrite } from '../useWrite'
import { useUndo } from '../changes/Changes'
import { useToast } from '../Toasts'
import { AddressFields, noAddress } from './AddressFields'
import { rhythms, sayRhythm } from './rhythm'
import { wordsOf } from './rules'
import { t } from './words'

interface SourceSettingsProps {
  source: FollowedSource
  rules: SourceRules
  change: (part: Partial<SourceRules>) => void
}

/** Only a part of it; its name, rhythm and address; and leaving it. */
export function SourceSettings({ source, rules, change }: SourceSettingsProps) {
  return (
    <>
      <OnlyAPart rules={rules} change={change} />
      <NameAndAddress source={source} />
      <Leave source={source} />
    </>
  )
}

function OnlyAPart({ rules, change }: Omit<SourceSettingsProps, 'source'>) {
  const [only, setOnly] = useState(rules.only.join(', '))
  const isNarrowed = rules.from !== null || rules.until !== null || rules.text !== '' || rules.only.length > 0
  return (
    <details className="source-more" open={isNarrowed || undefined}>
      <summary>{t('onlyAPart')}</summary>
      <label className="intake-question">
        <span>{t('fromDay')}</span>
        <input
          type="date"
          className="form-control"
          value={rules.from ?? ''}
          onChange={(event) => change({ from: event.target.value || null })}
        />
      </label>
      <label className="intake-question">
        <span>{t('untilDay')}</span>
        <input
          type="date"
          className="form-control"
          value={rules.until ?? ''}
          onChange={(event) => change({ until: event.target.value || null })}
        />
      </label>
      <label className="intake-question">
        <span>{t('withTheWord')}</span>
        <input
          className="form-control"
          maxLength={200}
          value={rules.text}
          onChange={(event) => change({ text: event.target.value })}
        />
      </label>
      <label className="intake-question">
        <span>{t('ofCategories')}</span>
        <input
          className="form-control"
          value={only}
          onChange={(event) => {
            setOnly(event.target.value)
            change({ only: wordsOf(event.target.value) })
          }}
        />
      </label>
    </details>
  )
}

function NameAndAddress({ source }: { source: FollowedSource }) {
  const { values, text } = useFields({ name: source.name, every: String(source.everyMinutes) })
  const [address, setAddress] = useState<SourceAddress>(noAddress)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const save = () =>
    void post(async () => {
      await write('PUT', `/sources/${source.id}`, {
        version: source.version,
        name: values.name,
        everyMinutes: Number(values.every),
        rules: null,
        address: (address.address ?? '').trim() === '' ? null : address,
      })
    })
  return (
    <details className="source-more">
      <summary>{t('nameRhythmAddress')}</summary>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <Field id="name" label={t('name')} problem={problem} {...text('name')} />
        <label htmlFor="every">{t('howOften')}</label>
        <select id="every" className="form-select" {...text('every')}>
          {(rhythms.includes(source.everyMinutes) ? rhythms : [source.everyMinutes, ...rhythms]).map((one) => (
            <option key={one} value={one}>
              {sayRhythm(one)}
            </option>
          ))}
        </select>
        <p className="soft">{t('anotherAddress')}</p>
        <AddressFields value={address} problem={problem} onChange={setAddress} />
        <WhatWasRefused problem={problem} fields={['name', 'address', 'user', 'headerName', 'headerValue']} />
        <button type="submit" className="btn btn-outline-ink" disabled={isBusy}>
          {t('save')}
        </button>
      </form>
    </details>
  )
}

function Leave({ source }: { source: FollowedSource }) {
  const write = useWrite()
  const attempt = useAttempt()
  const navigate = useNavigate()
  const toast = useToast()
  const undo = useUndo()
  const leave = (keepsEvents: boolean) =>
    void attempt(async () => {
      const done = await write('DELETE', `/sources/${source.id}?keepsEvents=${keepsEvents}`)
      await navigate('/intake')
      toast(t('followedNoMore', { name: source.name }), done.events > 0 && !keepsEvents ? () => undo(done.actId) : undefined)
    })
  return (
    <details className="source-more">
      <summary>{t('followNoMore')}</summary>
      <p className="soft">{t('whatBecomesOfItsEvents')}</p>
      <button type="button" className="btn btn-outline-ink" onClick={() => leave(true)}>
        {t('eventsStay')}
      </button>{' '}
      <button type="button" className="btn btn-brick" onClick={() => leave(false)}>
        {t('eventsGo')}
      </button>
    </details>
  )
}
