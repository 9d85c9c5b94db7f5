import { useEffect, useRef, useState } from 'react'
import { sayDay, todayIn, type Day } from '../../shared/days'
import { firstDay } from '../../shared/slips'
import type { Consequences } from '../types'
import { useOrganisation } from '../session/queries'
import { sayTime } from '../times'
import { DayField } from './DayField'
import { t } from './words'

interface DateListProps {
  consequences: Consequences
  /** The day that the event was opened on; the list begins near it. */
  seen: Day | null
  /** Null where dates cannot be clicked away: an event that happens once. */
  onToggle: ((date: ConsequenceDate) => void) | null
  onAdd: ((day: Day) => void) | null
}

export type ConsequenceDate = Consequences['dates'][number]

/** The dates; pressing one takes it out, or back in. */
export function DateList({ consequences, seen, onToggle, onAdd }: DateListProps) {
  const { locale } = useOrganisation()
  const list = useRef<HTMLOListElement>(null)
  useEffect(() => {
    const line = list.current?.querySelector<HTMLElement>('.is-seen')
    if (line) list.current?.scrollTo({ top: line.offsetTop - list.current.offsetTop - 60 })
  }, [seen])
  const { count, dates, last } = consequences
  const taking = dates.filter((date) => date.kind !== 'removed' && date.kind !== 'inBreak').length
  const more = count === null ? null : count - taking
  return (
    <>
      <ol ref={list} className="dates" tabIndex={0} aria-label={t('datesOfEvent')}>
        {dates.map((date, index) => (
          <DateLine
            key={`${date.recurrenceId}${date.kind}`}
            date={date}
            allDay={consequences.allDay}
            previous={dates[index - 1]?.start}
            locale={locale}
            isSeen={date.start.slice(0, 10) === seen}
            onToggle={onToggle}
          />
        ))}
        {more !== null && more > 1 && <li className="soft">{t('soManyMore', { more: more - 1 })}</li>}
        {more !== null && more > 0 && last && (
          <DateLine date={last} allDay={consequences.allDay} locale={locale} isSeen={false} onToggle={null} />
        )}
        {count === null && <li className="soft">{t('andSoOn')}</li>}
      </ol>
      {onAdd && <AddDate onAdd={onAdd} />}
    </>
  )
}

/** The worst one; the others when they are wanted. */
function Remarks({ remarks }: { remarks: string[] }) {
  const [isOpen, setOpen] = useState(false)
  const isFolded = !isOpen && remarks.length > 3
  return (
    <span className="date-remark">
      {(isFolded ? remarks.slice(0, 2) : remarks).join('; ')}{' '}
      {isFolded && (
        <button type="button" className="as-link" onClick={() => setOpen(true)}>
          {t('moreRemarks', { count: remarks.length - 2 })}
        </button>
      )}
    </span>
  )
}

interface DateLineProps {
  date: ConsequenceDate
  allDay: boolean
  previous?: string
  locale: string
  isSeen: boolean
  onToggle: ((date: ConsequenceDate) => void) | null
}

function DateLine({ date, allDay, previous, locale, isSeen, onToggle }: DateLineProps) {
  const day = date.start.slice(0, 10)
  const timed = { start: date.start, end: date.end, allDay }
  const isNewYear = previous?.slice(0, 4) !== day.slice(0, 4)
  const isOut = date.kind === 'removed' || date.kind === 'inBreak'
  const name = sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long' })
  return (
    <li className={[isOut && 'is-out', isSeen && 'is-seen'].filter(Boolean).join(' ') || undefined}>
      <span className="soft">{sayDay(day, locale, { weekday: 'short' })}</span>
      <span className="date-day">
        {sayDay(day, locale, { day: 'numeric', month: 'short', ...(isNewYear ? { year: 'numeric' } : {}) })}
      </span>
      <span className="date-day">{sayTime(timed, firstDay(timed))}</span>
      <Remarks remarks={date.remarks} />
      {onToggle && date.kind !== 'inBreak' ? (
        <button
          type="button"
          className="date-toggle"
          aria-label={date.kind === 'removed' ? t('putNameBack', { name }) : t('takeNameOut', { name })}
          title={date.kind === 'removed' ? t('putItBack') : t('takeItOut')}
          onClick={() => onToggle(date)}
        >
          {date.kind === 'removed' ? '+' : '×'}
        </button>
      ) : (
        <span />
      )}
    </li>
  )
}

function AddDate({ onAdd }: { onAdd: (day: Day) => void }) {
  const { zone } = useOrganisation()
  const [day, setDay] = useState<Day | null>(null)
  return (
    <p className="when-line add-date">
      <span>{t('addADate')}</span>
      <DayField id="extra" label={t('furtherDate')} value={day} today={todayIn(zone)} onChange={setDay} />
      <button type="button" className="btn btn-outline-ink" disabled={!day} onClick={() => day && (onAdd(day), setDay(null))}>
        {t('add')}
      </button>
    </p>
  )
}
