import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { bring, call } from '../api'
import { useCalendars } from '../calendars/queries'
import { WhatWasRefused } from '../Field'
import type { CalendarBy, IntakeListed } from '../types'
import { usePost } from '../usePost'
import { t } from './words'

/** On which calendar, then which file: nothing is filed on a calendar by chance. */
export function BringEvents() {
  const editable = (useCalendars().data ?? []).filter((calendar) => calendar.mayEdit)
  const only = editable.length === 1 ? editable[0] : undefined
  const [chosen, setChosen] = useState('')
  const where = chosen || (only?.id ?? '')
  const [text, setText] = useState<string | null>(null)
  const [isOver, setOver] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const { problem, isBusy, post } = usePost()
  const navigate = useNavigate()
  const by: CalendarBy = where === 'column' || where === 'category' ? where : 'one'
  const calendarId = by === 'one' && where !== '' ? where : null
  const isReady = where !== '' && !isBusy
  const send = (act: () => Promise<IntakeListed>) => void post(async () => void navigate(`/intake/${(await act()).id}`))
  const sendFile = (file: File | undefined) => {
    if (!file || !isReady) return
    const address = `/intake?name=${encodeURIComponent(file.name)}&by=${by}${calendarId ? `&calendarId=${calendarId}` : ''}`
    send(() =>
      bring<IntakeListed>(address, file, {
        away: t('couldNotBeBrought', { name: file.name }),
        tooLarge: t('isTooLarge', { name: file.name }),
      }),
    )
  }
  if (editable.length === 0) return <p className="empty">{t('editorsBring')}</p>
  return (
    <section
      className={isOver ? 'bring-events is-over' : 'bring-events'}
      aria-label={t('bringEvents')}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(isReady)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        sendFile(event.dataTransfer.files[0])
      }}
    >
      <label htmlFor="bring-where">{t('onWhichCalendar')}</label>
      <select
        id="bring-where"
        className="form-select inline-select"
        value={where}
        aria-describedby="bring-refusal"
        onChange={(event) => setChosen(event.target.value)}
      >
        {!only && <option value="">{t('choose')}</option>}
        {editable.map((calendar) => (
          <option key={calendar.id} value={calendar.id}>
            {calendar.plate} {calendar.name}
          </option>
        ))}
        <option value="column">{t('asAColumnSays')}</option>
        <option value="category">{t('asCategoriesSay')}</option>
      </select>
      <button type="button" className="btn btn-spruce" disabled={!isReady} onClick={() => field.current?.click()}>
        {isBusy ? t('bringing') : t('chooseAFile')}
      </button>
      <input
        ref={field}
        type="file"
        hidden
        accept=".ics,.ical,.csv,.tsv,.txt,.xlsx"
        aria-label={t('chooseAFile')}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          sendFile(file)
        }}
      />
      <button
        type="button"
        className="btn btn-outline-ink"
        disabled={!isReady}
        onClick={() => setText(text === null ? '' : null)}
      >
        {t('pasteInstead')}
      </button>
      <p className="soft">{t('whichFiles')}</p>
      {text !== null && (
        <div className="bring-text">
          <label htmlFor="bring-text">{t('pastedText')}</label>
          <textarea
            id="bring-text"
            className="form-control"
            rows={6}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="button"
            className="btn btn-spruce"
            disabled={!isReady || text.trim() === ''}
            onClick={() => send(() => call('POST', '/intake/text', { text, by, calendarId }))}
          >
            {t('readIt')}
          </button>
        </div>
      )}
      <WhatWasRefused problem={problem} fields={[]} />
    </section>
  )
}
