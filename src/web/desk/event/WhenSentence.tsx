import { useRef } from 'react'
import { addDays, daysBetween, placeOfZone, sayDay, todayIn, weekdayOf, type Day } from '../../shared/days'
import type { Problem } from '../Problem'
import type { Consequences } from '../types'
import { useOrganisation } from '../session/queries'
import { DayField } from './DayField'
import { Refusal } from '../Refusal'
import { sayTime } from '../times'
import { positionOf, type Draft } from './draft'
import { Ending, Repetition } from './Repetition'
import { TimeField } from './TimeField'
import { movedEnd } from './movedEnd'
import { ZoneField } from './ZoneField'
import { t } from './words'

interface WhenSentenceProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  problem: Problem | null
  calendarZone: string
  /** The first day of the series that is being changed; null for a new event, or one that does not recur. */
  seriesStart: Day | null
  consequences: Consequences | undefined
}

/** When it happens, as a sentence whose words can be changed. */
export function WhenSentence({ draft, set, problem, calendarZone, seriesStart, consequences }: WhenSentenceProps) {
  const { zone, locale } = useOrganisation()
  const today = todayIn(zone)
  const isDue = draft.kind === 'deadline'
  const hasLastDay = draft.endDate !== null || problem?.on('endDate') !== undefined
  // What is being typed is no day and no time for a moment: the end moves from what was there before.
  const before = useRef({ date: draft.date, from: draft.from })
  const moveFrom = (from: string | null) => {
    const to = movedEnd(before.current.from, draft.to, from)
    if (from) before.current.from = from
    set({ from, to })
  }
  const moveStart = (date: Day | null) => {
    // In a new event the pattern follows the start while it says no more than the start does. In a series that is there
    // already the day is moved, and the question which dates are meant comes when it is saved.
    // What lasts several days goes on lasting as many.
    const was = before.current.date
    const endDate = draft.endDate && was && date ? addDays(draft.endDate, daysBetween(was, date)) : draft.endDate
    if (date) before.current.date = date
    if (seriesStart || !draft.date || !date) return set({ date, endDate })
    const old = positionOf(draft.date)
    const followsWeekday = draft.weekdays.length === 1 && draft.weekdays[0] === old.weekday
    const followsMonth = draft.monthDay === old.monthDay && draft.weekday === old.weekday && draft.month === old.month
    set({
      date,
      endDate,
      ...(followsWeekday ? { weekdays: [weekdayOf(date)] } : {}),
      ...(followsMonth ? { ...positionOf(date), ordinal: draft.ordinal === -1 ? -1 : positionOf(date).ordinal } : {}),
    })
  }
  return (
    <div className="when">
      <p className="when-line">
        <select
          className="form-select"
          aria-label={t('eventOrDeadline')}
          value={draft.kind}
          onChange={(event) => set({ kind: event.target.value as Draft['kind'], endDate: null })}
        >
          <option value="event">{t('takesPlace')}</option>
          <option value="deadline">{t('isDue')}</option>
        </select>
        {draft.allDay ? (
          <span>{isDue ? '' : t('allDayHead')}</span>
        ) : isDue ? (
          <>
            <span>{t('atTime')}</span>
            <TimeField id="from" label={t('dueTime')} value={draft.from} refusal={problem?.on('from')} onChange={moveFrom} />
          </>
        ) : (
          <>
            <span>{t('from')}</span>
            <TimeField id="from" label={t('startTime')} value={draft.from} refusal={problem?.on('from')} onChange={moveFrom} />
            <span>{t('to')}</span>
            <TimeField id="to" label={t('endTime')} value={draft.to} refusal={problem?.on('to')} onChange={(to) => set({ to })} />
          </>
        )}
        <span>{draft.pattern === 'once' || seriesStart ? t('onDay') : t('starting')}</span>
        <DayField
          id="date"
          label={t('day')}
          value={draft.date}
          today={today}
          refusal={problem?.on('date')}
          onChange={moveStart}
        />
        {!isDue && hasLastDay && (
          <>
            <span>{draft.allDay ? t('toDay') : t('untilDay')}</span>
            <DayField
              id="endDate"
              label={t('lastDay')}
              value={draft.endDate}
              today={today}
              near={draft.date ?? today}
              refusal={problem?.on('endDate')}
              onChange={(endDate) => set({ endDate })}
            />
            <button type="button" className="as-link" onClick={() => set({ endDate: null })}>
              {t('oneDayOnly')}
            </button>
          </>
        )}
      </p>
      <p className="when-line">
        <select
          className="form-select"
          aria-label={t('onceOrEvery')}
          value={draft.pattern === 'once' ? 'once' : 'every'}
          onChange={(event) => set({ pattern: event.target.value === 'once' ? 'once' : 'weekly' })}
        >
          <option value="once">{t('once')}</option>
          <option value="every">{t('every')}</option>
        </select>
        {draft.pattern !== 'once' && (
          <Repetition draft={draft} set={set} problem={problem} today={today} rule={consequences?.rule ?? null} />
        )}
        {seriesStart && draft.pattern !== 'once' && (
          <span className="soft">
            {t('sinceDay', { day: sayDay(seriesStart, locale, { day: 'numeric', month: 'long', year: 'numeric' }) })}
          </span>
        )}
      </p>
      {draft.pattern !== 'once' && <Ending draft={draft} set={set} problem={problem} today={today} />}
      <p className="when-line">
        <label className="tick">
          <input type="checkbox" checked={draft.allDay} onChange={(event) => set({ allDay: event.target.checked })} />{' '}
          {isDue ? t('anyTimeThatDay') : t('allDay')}
        </label>
        {!isDue && !hasLastDay && (
          <button type="button" className="as-link" onClick={() => set({ endDate: draft.date && addDays(draft.date, 1) })}>
            {t('overSeveralDays')}
          </button>
        )}
        {!draft.allDay && (
          <ZoneField value={draft.zone ?? calendarZone} calendarZone={calendarZone} onChange={(own) => set({ zone: own })} />
        )}
        <Refusal text={problem?.on('zone')} />
        {!draft.allDay && consequences?.onCalendarClock && (
          <span className="remark-inline">
            {t('timeInPlaceOfZone', {
              time: sayTime({ ...consequences.onCalendarClock, allDay: false }),
              place: placeOfZone(consequences.onCalendarClock.zone),
            })}
          </span>
        )}
        {draft.allDay && !isDue && <span className="soft">{t('aDayIsTheSame')}</span>}
      </p>
    </div>
  )
}
