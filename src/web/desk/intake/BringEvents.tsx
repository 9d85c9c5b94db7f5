import { useState } from 'react'
import { useNavigate } from 'react-router'
import { FillableOptions } from '../calendars/FillableOptions'
import { bring } from '../api'
import { useFillableCalendars } from '../calendars/queries'
import { Field, WhatWasRefused } from '../Field'
import { FileButton } from '../FileButton'
import type { Problem } from '../Problem'
import type { CalendarBy, IntakeListed } from '../types'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { t } from './words'

/** On which calendar, then which file: nothing is filed on a calendar by chance. */
export function BringEvents() {
  const editable = useFillableCalendars()
  const only = editable.length === 1 ? editable[0] : undefined
  const [chosen, setChosen] = useState('')
  const where = chosen || (only?.id ?? '')
  const [instead, setInstead] = useState<'text' | 'address' | null>(null)
  const [isOver, setOver] = useState(false)
  const { problem, isBusy, post } = usePost()
  const navigate = useNavigate()
  const write = useWrite()
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
        <FillableOptions />
        <option value="column">{t('asAColumnSays')}</option>
        <option value="category">{t('asCategoriesSay')}</option>
      </select>
      <span className="bring-ways">
        <FileButton
          label={t('chooseAFile')}
          accept=".ics,.ical,.csv,.tsv,.txt,.xlsx"
          className="btn btn-spruce"
          isReady={isReady}
          onBring={sendFile}
        >
          {isBusy ? t('bringing') : undefined}
        </FileButton>
        {(['text', 'address'] as const).map((one) => (
          <button
            key={one}
            type="button"
            className="btn btn-outline-ink"
            aria-expanded={instead === one}
            disabled={!isReady}
            onClick={() => setInstead(instead === one ? null : one)}
          >
            {t(`instead_${one}`)}
          </button>
        ))}
      </span>
      <p className="soft">{t('whichFiles')}</p>
      {instead === 'text' && (
        <BringText isReady={isReady} onSend={(text) => send(() => write('POST', '/intake/text', { text, by, calendarId }))} />
      )}
      {instead === 'address' && (
        <BringAddress
          isReady={isReady}
          problem={problem}
          onSend={(address) => send(() => write('POST', '/intake/address', { address, by, calendarId }))}
        />
      )}
      <WhatWasRefused problem={problem} fields={instead === 'address' ? ['address'] : []} />
    </section>
  )
}

function BringText({ isReady, onSend }: { isReady: boolean; onSend: (text: string) => void }) {
  const [text, setText] = useState('')
  return (
    <div className="bring-text">
      <label htmlFor="bring-text">{t('pastedText')}</label>
      <textarea
        id="bring-text"
        className="form-control"
        rows={6}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="button" className="btn btn-spruce" disabled={!isReady || text.trim() === ''} onClick={() => onSend(text)}>
        {t('readIt')}
      </button>
    </div>
  )
}

interface BringAddressProps {
  isReady: boolean
  problem: Problem | null
  onSend: (address: string) => void
}

function BringAddress({ isReady, problem, onSend }: BringAddressProps) {
  const [address, setAddress] = useState('')
  return (
    <form
      className="bring-text"
      onSubmit={(event) => {
        event.preventDefault()
        onSend(address)
      }}
    >
      <Field
        id="address"
        label={t('address')}
        problem={problem}
        autoComplete="off"
        placeholder={t('addressExample')}
        value={address}
        onChange={(event) => setAddress(event.target.value)}
      />
      <button type="submit" className="btn btn-spruce" disabled={!isReady || address.trim() === ''}>
        {t('getIt')}
      </button>
    </form>
  )
}
