import { useState } from 'react'
import { todayIn } from '../../shared/days'
import type { Calendar, Detail, Problem } from '../api'
import { detailWords, isMore } from '../openness'
import { useOrganisation } from '../queries'
import { DayField } from './DayField'
import { Refusal } from '../Refusal'
import type { CapDraft, Draft } from './draft'

const audiences = [
  { key: 'members', name: 'Members' },
  { key: 'link', name: 'With the link' },
  { key: 'everyone', name: 'Everyone' },
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
        As the calendar says{' '}
        <button type="button" className="as-link" onClick={() => setOpen(true)}>
          Say less …
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
            <option value="">as the calendar says ({detailWords[most(key)].toLowerCase()})</option>
            {levels
              .filter((level) => isMore(most(key), level) || cap[key] === level)
              .map((level) => (
                <option key={level} value={level}>
                  {detailWords[level].toLowerCase()}
                </option>
              ))}
          </select>
          <Refusal text={problem?.on(`cap.${key}`)} />
        </div>
      ))}
      <div className="when-line">
        <span>Shown from</span>
        <DayField id="showFrom" label="Shown from" value={showFrom} today={today} onChange={(day) => set({ showFrom: day })} />
        <span>until</span>
        <DayField
          id="showUntil"
          label="Shown until"
          value={showUntil}
          today={today}
          onChange={(day) => set({ showUntil: day })}
        />
        <span className="soft">days left empty: always</span>
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
          As the calendar says, always
        </button>
      )}
    </div>
  )
}
