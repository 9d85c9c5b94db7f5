import { addDays, placeOfZone, sayDay, todayIn, weekdayOf, weekOf, type Day } from '../../shared/days'
import type { Problem } from '../api'
import { useOrganisation } from '../queries'
import { DayField, Refusal } from './DayField'
import type { Draft, Pattern } from './draft'
import { TimeField } from './TimeField'

interface WhenSentenceProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  problem: Problem | null
  calendarZone: string
}

/** When it happens, as a sentence whose words can be changed. */
export function WhenSentence({ draft, set, problem, calendarZone }: WhenSentenceProps) {
  const { zone } = useOrganisation()
  const today = todayIn(zone)
  const moveStart = (date: Day | null) => {
    // The weekday ticked follows the start while it is the only one: it was ticked from the start.
    const follows = draft.date && date && draft.weekdays.length === 1 && draft.weekdays[0] === weekdayOf(draft.date)
    set({ date, ...(follows ? { weekdays: [weekdayOf(date)] } : {}) })
  }
  return (
    <div className="when">
      <p className="when-line">
        {draft.allDay ? (
          <span>All day,</span>
        ) : (
          <>
            <span>From</span>
            <TimeField
              id="from"
              label="Start time"
              value={draft.from}
              refusal={problem?.on('from')}
              onChange={(from) => set({ from })}
            />
            <span>to</span>
            <TimeField id="to" label="End time" value={draft.to} refusal={problem?.on('to')} onChange={(to) => set({ to })} />
          </>
        )}
        <span>{draft.pattern === 'once' ? 'on' : 'starting'}</span>
        <DayField id="date" label="Day" value={draft.date} today={today} refusal={problem?.on('date')} onChange={moveStart} />
        {draft.endDate !== null || problem?.on('endDate') ? (
          <>
            <span>{draft.allDay ? 'to' : 'until'}</span>
            <DayField
              id="endDate"
              label="Last day"
              value={draft.endDate}
              today={today}
              refusal={problem?.on('endDate')}
              onChange={(endDate) => set({ endDate })}
            />
            <button type="button" className="as-link" onClick={() => set({ endDate: null })}>
              one day only
            </button>
          </>
        ) : (
          <button type="button" className="as-link" onClick={() => set({ endDate: draft.date && addDays(draft.date, 1) })}>
            over several days
          </button>
        )}
      </p>
      <p className="when-line">
        <select
          className="form-select"
          aria-label="Once or every"
          value={draft.pattern === 'once' ? 'once' : 'every'}
          onChange={(event) => set({ pattern: event.target.value === 'once' ? 'once' : 'weekly' })}
        >
          <option value="once">once</option>
          <option value="every">every</option>
        </select>
        {draft.pattern !== 'once' && <Repetition draft={draft} set={set} problem={problem} today={today} />}
      </p>
      {draft.pattern !== 'once' && <Ending draft={draft} set={set} problem={problem} today={today} />}
      <p className="when-line">
        <label className="tick">
          <input type="checkbox" checked={draft.allDay} onChange={(event) => set({ allDay: event.target.checked })} /> all day
        </label>
        {!draft.allDay && <span className="soft">{placeOfZone(draft.zone ?? calendarZone)} time</span>}
        <Refusal text={problem?.on('zone')} />
      </p>
    </div>
  )
}

interface PartProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  problem: Problem | null
  today: Day
}

function Repetition({ draft, set, problem, today }: PartProps) {
  const { locale, firstDayOfWeek } = useOrganisation()
  const toggle = (weekday: number) =>
    set({
      weekdays: draft.weekdays.includes(weekday) ? draft.weekdays.filter((one) => one !== weekday) : [...draft.weekdays, weekday],
    })
  const first = weekOf(today, firstDayOfWeek)
  return (
    <>
      <input
        className="form-control number-field"
        aria-label={draft.pattern === 'weekly' ? 'Every how many weeks' : 'Every how many days'}
        inputMode="numeric"
        value={draft.interval}
        aria-invalid={problem?.on('repeat.interval') !== undefined}
        onChange={(event) => set({ interval: event.target.value })}
      />
      <select
        className="form-select"
        aria-label="Days or weeks"
        value={draft.pattern}
        onChange={(event) => set({ pattern: event.target.value as Pattern })}
      >
        <option value="daily">{draft.interval.trim() === '1' ? 'day' : 'days'}</option>
        <option value="weekly">{draft.interval.trim() === '1' ? 'week' : 'weeks'}</option>
      </select>
      <Refusal text={problem?.on('repeat.interval')} />
      {draft.pattern === 'weekly' && <span>on</span>}
      {draft.pattern === 'weekly' && (
        <span className="weekdays" role="group" aria-label="Weekdays">
          {Array.from({ length: 7 }, (_, index) => addDays(first, index)).map((day) => (
            <label key={day} className={draft.weekdays.includes(weekdayOf(day)) ? 'is-on' : undefined}>
              <input
                type="checkbox"
                className="visually-hidden"
                checked={draft.weekdays.includes(weekdayOf(day))}
                onChange={() => toggle(weekdayOf(day))}
                aria-label={sayDay(day, locale, { weekday: 'long' })}
              />
              <span aria-hidden="true">{sayDay(day, locale, { weekday: 'short' }).slice(0, 2)}</span>
            </label>
          ))}
        </span>
      )}
      <Refusal text={problem?.on('repeat.weekdays')} />
    </>
  )
}

function Ending({ draft, set, problem, today }: PartProps) {
  return (
    <p className="when-line">
      <select
        className="form-select"
        aria-label="How it ends"
        value={draft.ends}
        onChange={(event) => {
          const ends = event.target.value as Draft['ends']
          set({ ends, ...(ends === 'on' && !draft.until && draft.date ? { until: addDays(draft.date, 70) } : {}) })
        }}
      >
        <option value="never">without end</option>
        <option value="on">until</option>
        <option value="after">for</option>
      </select>
      {draft.ends === 'on' && (
        <DayField
          id="until"
          label="Until"
          value={draft.until}
          today={today}
          refusal={problem?.on('repeat.until')}
          onChange={(until) => set({ until })}
        />
      )}
      {draft.ends === 'after' && (
        <>
          <input
            className="form-control number-field"
            aria-label="Number of dates"
            inputMode="numeric"
            value={draft.count}
            aria-invalid={problem?.on('repeat.count') !== undefined}
            onChange={(event) => set({ count: event.target.value })}
          />
          <span>dates</span>
          <Refusal text={problem?.on('repeat.count')} />
        </>
      )}
    </p>
  )
}
