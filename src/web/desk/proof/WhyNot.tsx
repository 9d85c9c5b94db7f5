import { useId, useState } from 'react'
import { Plate } from '../../shared/Plate'
import { useCalendars } from '../calendars/queries'
import { sayDay } from '../../shared/days'
import { useSearch } from '../search/queries'
import { useOrganisation } from '../session/queries'
import type { Occurrence, Proof } from '../types'
import { useSettled } from '../useSettled'
import { TraceBox } from './TraceBox'
import { t } from './words'

const MOST = 6

/** Any event is looked for, and says why it is missing, or that it is not. */
export function WhyNot({ proof }: { proof: Proof }) {
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState<Occurrence | null>(null)
  const found = useSearch(useSettled(text.trim()))
  const hits = text.trim().length < 2 ? [] : [...(found.data?.coming ?? []), ...(found.data?.over ?? [])].slice(0, MOST)
  const name = useId()
  return (
    <section className="proof-box why-not">
      <label htmlFor={name}>{t('whyIsItNotHere')}</label>
      <input
        id={name}
        className="form-control"
        type="search"
        placeholder={t('typeTitle')}
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          setChosen(null)
        }}
      />
      {found.data && text.trim().length >= 2 && hits.length === 0 && <p className="soft">{t('nothingFound')}</p>}
      {!chosen && hits.length > 0 && (
        <ul className="why-hits" aria-label={t('whichEvent')}>
          {hits.map((one) => (
            <Hit key={`${one.eventId} ${one.recurrenceId}`} occurrence={one} onChoose={() => setChosen(one)} />
          ))}
        </ul>
      )}
      {chosen && (
        <TraceBox
          proof={proof}
          eventId={chosen.eventId}
          date={chosen.recurrenceId}
          title={chosen.title}
          onClose={() => setChosen(null)}
        />
      )}
    </section>
  )
}

function Hit({ occurrence, onChoose }: { occurrence: Occurrence; onChoose: () => void }) {
  const { locale } = useOrganisation()
  const calendar = (useCalendars().data ?? []).find((one) => one.id === occurrence.calendarId)
  return (
    <li>
      <button type="button" className="as-link" onClick={onChoose}>
        {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} {occurrence.title}{' '}
        <span className="soft">
          {sayDay(occurrence.start.slice(0, 10), locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })}
        </span>
      </button>
    </li>
  )
}
