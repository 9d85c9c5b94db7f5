import { useState } from 'react'
import { sayDay } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { DayField } from '../event/DayField'
import { useOrganisation } from '../session/queries'
import type { Calendar, CarriedRow } from '../types'
import type { Correction } from './CarryTable'
import { t } from './words'

/** So many rows are drawn at once. */
const AT_ONCE = 150

interface CarryRowsProps {
  rows: CarriedRow[]
  calendars: Calendar[]
  /** A day without a year is near this one. */
  near: string
  isChosen: (row: CarriedRow) => boolean
  tick: (rows: CarriedRow[], isOn: boolean) => void
  correct: (row: CarriedRow, change: Partial<Correction>) => void
  titles: ReadonlyMap<string, Correction>
}

/** Term by term, as the year goes. */
export function CarryRows({ rows, calendars, isChosen, tick, ...each }: CarryRowsProps) {
  const [most, setMost] = useState(AT_ONCE)
  const byId = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  const makeable = rows.filter((row) => row.mayBeMade)
  const isAll = makeable.length > 0 && makeable.every(isChosen)
  return (
    <>
      <table className="carry-table as-cards">
        <thead>
          <tr>
            <th scope="col">
              <input
                type="checkbox"
                aria-label={t('allOfThese')}
                checked={isAll}
                disabled={makeable.length === 0}
                onChange={() => tick(rows, !isAll)}
              />
            </th>
            <th scope="col">{t('event')}</th>
            <th scope="col">{t('thisYear')}</th>
            <th scope="col">{t('week')}</th>
            <th scope="col">{t('nextYear')}</th>
            <th scope="col">{t('whatToLookAt')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, most).map((row, index) => (
            <RowWithTerm key={row.eventId} row={row} isFirst={index === 0 || rows[index - 1]?.term !== row.term}>
              <Row {...each} row={row} calendar={byId.get(row.calendarId)} isChosen={isChosen(row)} tick={tick} />
            </RowWithTerm>
          ))}
        </tbody>
      </table>
      {rows.length > most && (
        <button type="button" className="btn btn-outline-ink" onClick={() => setMost(most + 2 * AT_ONCE)}>
          {t('showMore', { count: rows.length - most })}
        </button>
      )}
    </>
  )
}

function RowWithTerm({ row, isFirst, children }: { row: CarriedRow; isFirst: boolean; children: React.ReactNode }) {
  return (
    <>
      {isFirst && (
        <tr className="carry-term">
          <th colSpan={6} scope="colgroup">
            {row.term || t('inNoTerm')}
          </th>
        </tr>
      )}
      {children}
    </>
  )
}

interface RowProps extends Pick<CarryRowsProps, 'near' | 'tick' | 'correct' | 'titles'> {
  row: CarriedRow
  calendar: Calendar | undefined
  isChosen: boolean
}

function Row({ row, calendar, near, isChosen, tick, correct, titles }: RowProps) {
  const title = titles.get(row.eventId)?.title ?? row.newTitle
  return (
    <tr className={[row.needsLook && 'needs-look', !row.mayBeMade && 'is-left'].filter(Boolean).join(' ') || undefined}>
      <td>
        <input
          type="checkbox"
          aria-label={t('makeTitle', { title })}
          checked={isChosen}
          disabled={!row.mayBeMade}
          onChange={() => tick([row], !isChosen)}
        />
      </td>
      <td>
        <span className="carry-event">
          {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />}
          {row.mayBeMade ? (
            <input
              className="carry-title"
              aria-label={t('titleNextYear', { title: row.title })}
              maxLength={200}
              value={title}
              onChange={(event) => correct(row, { title: event.target.value })}
            />
          ) : (
            <b>{row.title}</b>
          )}
        </span>
      </td>
      <td data-label={t('thisYear')}>{row.was}</td>
      <td data-label={t('week')}>{sayWeek(row)}</td>
      <td data-label={t('nextYear')}>
        {row.mayBeMade || row.needsLook ? <NextDay row={row} near={near} correct={correct} /> : '–'}
      </td>
      <td className="carry-remarks" data-label={row.remarks.length > 0 ? t('whatToLookAt') : undefined}>
        {row.remarks.join('; ')}
      </td>
    </tr>
  )
}

function sayWeek({ week, lastWeek, lastTerm, term, isBreak }: CarriedRow): string {
  if (week === 0) return isBreak ? t('break') : '–'
  if (lastWeek > 0 && lastTerm !== term) return t('weeksOverTerms', { week, lastWeek, lastTerm })
  return lastWeek > 0 && lastWeek !== week ? `${week}–${lastWeek}` : String(week)
}

/** Where it would be; a press makes it a field. Of a series its first date. */
function NextDay({ row, near, correct }: Pick<RowProps, 'row' | 'near' | 'correct'>) {
  const [isOpen, setOpen] = useState(false)
  const { locale } = useOrganisation()
  const day = sayDay(row.day, locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
  if (isOpen)
    return (
      <DayField
        id={`day-${row.eventId}`}
        label={t('firstDayOf', { title: row.newTitle })}
        value={row.day}
        today={near}
        near={row.day}
        onChange={(chosen) => chosen && correct(row, { day: chosen })}
      />
    )
  return (
    <button
      type="button"
      className="carry-day"
      title={row.recurs ? t('fromDay', { day }) : undefined}
      onClick={() => setOpen(true)}
    >
      {row.recurs ? row.becomes : day}
    </button>
  )
}
