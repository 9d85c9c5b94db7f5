import { useState, type FormEvent } from 'react'
import { WhatWasRefused } from '../Field'
import { useToast } from '../Toasts'
import type { Calendar, EventForm } from '../types'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { useTemplates } from './queries'
import { t } from './words'

interface TemplateActsProps {
  calendar: Calendar
  /** As the form says it now. */
  request: () => EventForm
  title: string
}

/** Keeps what the form says as a pattern to start from, or as what is usual on its calendar; and takes patterns away. */
export function TemplateActs({ calendar, request, title }: TemplateActsProps) {
  const [isOpen, setOpen] = useState(false)
  return (
    <div className="template-acts">
      <button type="button" className="as-link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {t('keepAsTemplate')}
      </button>
      {isOpen && <Keeping calendar={calendar} request={request} title={title} />}
    </div>
  )
}

function Keeping({ calendar, request, title }: TemplateActsProps) {
  const templates = (useTemplates(true).data ?? []).filter((one) => one.calendarId === calendar.id && one.mayRemove)
  const [name, setName] = useState(title)
  const [isUsual, setUsual] = useState(false)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const keep = (event: FormEvent) => {
    event.preventDefault()
    event.stopPropagation()
    void post(async () => {
      await write('POST', '/templates', { name: isUsual ? null : name, isUsual, event: request() })
      toast(isUsual ? t('usualIsKept', { calendar: calendar.name }) : t('templateIsKept', { name: name.trim() }))
    })
  }
  const remove = (id: string) => void post(async () => void (await write('DELETE', `/templates/${id}`)))
  return (
    // A form within a form cannot be: what is pressed here is no saving of the event.
    <div
      className="keep-template"
      role="group"
      aria-label={t('keepAsTemplate')}
      onKeyDown={(event) => event.key === 'Enter' && event.target instanceof HTMLInputElement && keep(event)}
    >
      <p className="soft">{t('whatATemplateKeeps')}</p>
      {!isUsual && (
        <label>
          {t('itsName')}{' '}
          <input className="form-control" maxLength={100} value={name} onChange={(event) => setName(event.target.value)} />
        </label>
      )}
      {calendar.mayEdit && (
        <label className="tick">
          <input type="checkbox" checked={isUsual} onChange={(event) => setUsual(event.target.checked)} />{' '}
          {t('isUsualOn', { calendar: calendar.name })}
        </label>
      )}
      <button type="button" className="btn btn-outline-ink" disabled={isBusy || (!isUsual && name.trim() === '')} onClick={keep}>
        {t('keep')}
      </button>
      <WhatWasRefused problem={problem} fields={[]} />
      {templates.length > 0 && (
        <ul className="plain-list">
          {templates.map((one) => (
            <li key={one.id}>
              {one.isUsual ? t('theUsual') : one.name}
              <button
                type="button"
                className="btn btn-quiet"
                aria-label={t('removeTemplate', { name: one.isUsual ? t('theUsual') : one.name })}
                onClick={() => remove(one.id)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
