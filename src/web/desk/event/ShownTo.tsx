import { useState } from 'react'
import { todayIn } from '../../shared/days'
import type { Problem } from '../Problem'
import type { Calendar, Detail } from '../types'
import { detailSaid, isMore } from '../openness'
import { useOrganisation } from '../session/queries'
import { DayField } from './DayField'
import { Refusal } from '../Refusal'
import type { CapDraft, Draft } from './draft'
import { t } from './words'

const audiences = [
  { key: 'members', name: t('members') },
  { key: 'link', name: t('withTheLink') },
  { key: 'everyone', name: t('everyone') },
] as const

const levels: Detail[] = ['nothing', 'times', 'headline', 'complete']

interface ShownToProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  /** Those that show it: its home and where it is placed. */
  shownOn: Calendar[]
  problem: Problem | null
}

/** The event can say less than its calendar, and be shown for a time only. */
export function ShownTo({ draft, set, shownOn, problem }: ShownToProps) {
  const { cap, showFrom, showUntil } = draft
  const says = cap.members !== null || cap.link !== null || cap.everyone !== null || showFrom !== null || showUntil !== null
  const [isOpen, setOpen] = useState(says)
  const today = todayIn(useOrganisation().zone)
  const most = (key: keyof CapDraft): Detail =>
    shownOn.reduce<Detail>(
      (found, calendar) => (isMore(calendar.disclosure[key], found) ? calendar.disclosure[key] : found),
      'nothing',
    )
  if (!isOpen && !says)
    return (
      <div>
        {t('asTheCalendarSays')}{' '}
        <button type="button" className="as-link" onClick={() => setOpen(true)}>
          {t('sayLess')}
        </button>
      </div>
    )
  return (
    <div className="shown-to">
      {audiences.map(({ key, name }) => (
        <div key={key} className="when-line">
          <label htmlFor={`cap-${key}`}>{name}</label>
          <select
            id={`cap-${key}`}
            className="form-select"
            aria-invalid={problem?.on(`cap.${key}`) !== undefined}
            value={cap[key] ?? ''}
            onChange={(event) => set({ cap: { ...cap, [key]: (event.target.value || null) as Detail | null } })}
          >
            <option value="">{t('asTheCalendarSaysDetail', { detail: detailSaid[most(key)] })}</option>
            {levels
              .filter((level) => isMore(most(key), level) || cap[key] === level)
              .map((level) => (
                <option key={level} value={level}>
                  {detailSaid[level]}
                </option>
              ))}
          </select>
          <Refusal text={problem?.on(`cap.${key}`)} />
        </div>
      ))}
      <div className="when-line">
        <span>{t('shownFrom')}</span>
        <DayField
          id="showFrom"
          label={t('shownFrom')}
          value={showFrom}
          today={today}
          onChange={(day) => set({ showFrom: day })}
        />
        <span>{t('untilDay')}</span>
        <DayField
          id="showUntil"
          label={t('shownUntil')}
          value={showUntil}
          today={today}
          onChange={(day) => set({ showUntil: day })}
        />
        <span className="soft">{t('daysLeftEmptyAlways')}</span>
        <Refusal text={problem?.on('showUntil') ?? problem?.on('showFrom')} />
      </div>
      {says && (
        <button
          type="button"
          className="as-link"
          onClick={() => {
            set({ cap: { members: null, link: null, everyone: null }, showFrom: null, showUntil: null })
            setOpen(false)
          }}
        >
          {t('asTheCalendarSaysAlways')}
        </button>
      )}
    </div>
  )
}
