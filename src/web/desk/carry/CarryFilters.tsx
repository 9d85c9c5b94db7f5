import type { ReactNode } from 'react'
import type { Calendar, CarriedRow } from '../types'
import { t } from './words'

export interface Narrowing {
  calendarId: string
  category: string
  words: string
  needsLook: boolean
}

export const noNarrowing: Narrowing = { calendarId: '', category: '', words: '', needsLook: false }

export const isShown = (row: CarriedRow, { calendarId, category, words, needsLook }: Narrowing) =>
  (calendarId === '' || row.calendarId === calendarId) &&
  (category === '' || row.category === category) &&
  (!needsLook || row.needsLook) &&
  row.newTitle.toLocaleLowerCase().includes(words.trim().toLocaleLowerCase())

interface CarryFiltersProps {
  rows: CarriedRow[]
  calendars: Calendar[]
  narrowing: Narrowing
  onChange: (narrowing: Narrowing) => void
  children: ReactNode
}

export function CarryFilters({ rows, calendars, narrowing, onChange, children }: CarryFiltersProps) {
  const set = (change: Partial<Narrowing>) => onChange({ ...narrowing, ...change })
  const held = new Set(rows.map((row) => row.calendarId))
  const categories = [...new Set(rows.flatMap((row) => row.category ?? []))].sort((one, other) => one.localeCompare(other))
  const look = rows.filter((row) => row.needsLook).length
  return (
    <div className="carry-filters">
      {children}
      <select
        className="form-select"
        aria-label={t('calendar')}
        value={narrowing.calendarId}
        onChange={(event) => set({ calendarId: event.target.value })}
      >
        <option value="">{t('allCalendars')}</option>
        {calendars
          .filter((one) => held.has(one.id))
          .sort((one, other) => one.name.localeCompare(other.name))
          .map((one) => (
            <option key={one.id} value={one.id}>
              {one.plate} {one.name}
            </option>
          ))}
      </select>
      {categories.length > 0 && (
        <select
          className="form-select"
          aria-label={t('category')}
          value={narrowing.category}
          onChange={(event) => set({ category: event.target.value })}
        >
          <option value="">{t('allCategories')}</option>
          {categories.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      )}
      <input
        type="search"
        className="form-control"
        aria-label={t('titleHas')}
        placeholder={t('titleHas')}
        value={narrowing.words}
        onChange={(event) => set({ words: event.target.value })}
      />
      <label className="tick">
        <input type="checkbox" checked={narrowing.needsLook} onChange={(event) => set({ needsLook: event.target.checked })} />{' '}
        {t('onlyWhatNeedsALook', { count: look })}
      </label>
    </div>
  )
}
