import { useDeferredValue, useState } from 'react'
import { addDays, todayIn, type Day } from '../../shared/days'
import type { YearPlanRequest } from '../api'
import { DayField } from '../event/DayField'
import { Refusal } from '../Refusal'
import { useImpact, useOrganisation } from '../queries'
import { BreakImport } from './BreakImport'
import { ImpactPanel } from './ImpactPanel'
import { useYearActs } from './YearPlanPage'
import { YearStrip } from './YearStrip'

type Span = YearPlanRequest['terms'][number]

interface YearFormProps {
  id: string | null
  start: YearPlanRequest
  mayEdit: boolean
  cycleDays: number[]
  onDone: (id: string | null) => void
  onLeave: (() => void) | null
}

/** One year: what is said on the left, what it does to the series that follow it on the right. */
export function YearForm({ id, start, mayEdit, cycleDays, onDone, onLeave }: YearFormProps) {
  const { zone } = useOrganisation()
  const today = todayIn(zone)
  /** The year as it was when the typing began. */
  const [from, setFrom] = useState(start)
  const [plan, setPlan] = useState(() => pick(start))
  const begin = (year: YearPlanRequest) => (setFrom(year), setPlan(pick(year)))
  const set = (change: Partial<YearPlanRequest>) => setPlan((before) => ({ ...before, ...change }))
  const isSavedByOthers = (start.version ?? 0) > (from.version ?? 0)
  if (isSavedByOthers && JSON.stringify(plan) === JSON.stringify(pick(from))) begin(start)
  const asked = useDeferredValue(JSON.stringify(plan))
  const isChanged = asked !== JSON.stringify(pick(from))
  const impact = useImpact(id, asked, mayEdit && (isChanged || id === null))
  const acts = useYearActs(id, id === null ? null : pick(from), begin, onDone)
  const problem = acts.problem
  const on = (field: string) =>
    problem?.on(field) ?? (impact.error && 'on' in impact.error ? (impact.error as typeof problem)?.on(field) : undefined)
  return (
    <div className="year-columns">
      <form
        className="year-says"
        aria-label="Year"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void acts.save(plan)
        }}
      >
        <fieldset disabled={!mayEdit}>
          <YearStrip plan={plan} />
          <p className="when-line">
            <label htmlFor="year-name">Year</label>
            <input
              id="year-name"
              className="form-control year-name"
              value={plan.name ?? ''}
              onChange={(event) => set({ name: event.target.value })}
            />
            <span>from</span>
            <DayField
              id="first"
              label="First day of the year"
              value={plan.first}
              today={today}
              refusal={on('first')}
              onChange={(first) => set({ first })}
            />
            <span>to</span>
            <DayField
              id="last"
              label="Last day of the year"
              value={plan.last}
              today={today}
              refusal={on('last')}
              onChange={(last) => set({ last })}
            />
            <Refusal text={on('name')} />
          </p>
          <Spans
            title="Terms"
            what="term"
            spans={plan.terms}
            today={plan.first ?? today}
            refusal={on('terms')}
            onChange={(terms) => set({ terms })}
          />
          <Spans
            title="Breaks"
            what="break"
            spans={plan.breaks}
            today={plan.first ?? today}
            refusal={on('breaks')}
            onChange={(breaks) => set({ breaks })}
          />
          {mayEdit && plan.first && plan.last && (
            <BreakImport
              first={plan.first}
              last={plan.last}
              onRead={(breaks) =>
                set({
                  breaks: [
                    ...plan.breaks,
                    ...breaks.filter((one) => !plan.breaks.some((other) => other.first <= one.last && one.first <= other.last)),
                  ],
                })
              }
            />
          )}
          <CycleChoice plan={plan} set={set} cycleDays={isChanged ? [] : cycleDays} refusal={on('cycle')} />
        </fieldset>
        {isSavedByOthers && (
          <div className="conflict" role="alert">
            <p>
              <b>Somebody else saved {start.name} while you were working on it.</b> What you typed is still here.
            </p>
            <button type="button" className="btn btn-outline-ink" onClick={() => begin(start)}>
              Take theirs, drop mine
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={() => (setFrom(start), set({ version: start.version }))}>
              Keep mine, to be saved in its place
            </button>
          </div>
        )}
        {problem && problem.status !== 409 && Object.keys(problem.errors).length === 0 && (
          <p className="notice" role="alert">
            {problem.message}
          </p>
        )}
        {mayEdit && (
          <p className="event-acts">
            <button
              type="submit"
              className="btn btn-spruce"
              disabled={acts.isSaving || isSavedByOthers || (!isChanged && id !== null)}
            >
              {acts.isSaving ? 'Saving …' : sayWhatFollows(impact.data?.dates)}
            </button>
            {onLeave && (
              <button type="button" className="btn btn-quiet" onClick={onLeave}>
                Discard
              </button>
            )}
            <span className="stretch" />
            {id && (
              <button type="button" className="btn btn-brick" onClick={() => acts.remove(plan.version ?? 0)}>
                Remove this year
              </button>
            )}
          </p>
        )}
      </form>
      <ImpactPanel impact={isChanged || id === null ? impact.data : undefined} isAsked={isChanged || id === null} />
    </div>
  )
}

function pick(plan: YearPlanRequest): YearPlanRequest {
  const { name, first, last, terms, breaks, cycle, version } = plan
  return { name, first, last, terms, breaks, cycle, version }
}

function sayWhatFollows(dates: number | undefined): string {
  if (!dates) return 'Save the year plan'
  return dates === 1 ? 'Save, and change 1 date' : `Save, and change ${dates} dates`
}

interface SpansProps {
  title: string
  what: string
  spans: Span[]
  today: Day
  refusal?: string
  onChange: (spans: Span[]) => void
}

function Spans({ title, what, spans, today, refusal, onChange }: SpansProps) {
  const set = (index: number, change: Partial<Span>) =>
    onChange(spans.map((span, at) => (at === index ? { ...span, ...change } : span)))
  const last = spans[spans.length - 1]?.last
  const add = () => {
    const first = last ? addDays(last, 7) : today
    onChange([...spans, { name: `New ${what}`, first, last: addDays(first, what === 'term' ? 90 : 4) }])
  }
  return (
    <section className="spans">
      <h2>{title}</h2>
      {spans.length === 0 && <p className="soft">There is no {what} yet.</p>}
      {spans.map((span, index) => (
        <p key={index} className="when-line">
          <input
            className="form-control span-name"
            aria-label={`Name of ${what} ${index + 1}`}
            value={span.name}
            onChange={(event) => set(index, { name: event.target.value })}
          />
          <DayField
            id={`${what}-first-${index}`}
            label={`First day of ${span.name}`}
            value={span.first}
            today={today}
            onChange={(first) => first && set(index, { first })}
          />
          <span>to</span>
          <DayField
            id={`${what}-last-${index}`}
            label={`Last day of ${span.name}`}
            value={span.last}
            today={today}
            onChange={(day) => day && set(index, { last: day })}
          />
          <button type="button" className="as-link" onClick={() => onChange(spans.filter((_, at) => at !== index))}>
            take out<span className="visually-hidden"> {span.name}</span>
          </button>
        </p>
      ))}
      <Refusal text={refusal} />
      <button type="button" className="btn btn-outline-ink" onClick={add}>
        Add a {what}
      </button>
    </section>
  )
}

interface CycleChoiceProps {
  plan: YearPlanRequest
  set: (change: Partial<YearPlanRequest>) => void
  cycleDays: number[]
  refusal?: string
}

function CycleChoice({ plan, set, cycleDays, refusal }: CycleChoiceProps) {
  const cycle = plan.cycle
  const unit = cycle?.unit ?? 'none'
  const choose = (value: string) => {
    if (value === 'none') set({ cycle: null })
    else
      set({
        cycle: {
          unit: value as 'days' | 'weeks',
          length: value === 'days' ? 6 : 2,
          restartsEachTerm: cycle?.restartsEachTerm ?? true,
        },
      })
  }
  return (
    <section className="spans">
      <h2>Day cycle</h2>
      <p className="when-line">
        <span>School days are numbered</span>
        <select className="form-select" aria-label="Day cycle" value={unit} onChange={(event) => choose(event.target.value)}>
          <option value="none">not at all</option>
          <option value="days">by days: Day 1, Day 2 …</option>
          <option value="weeks">by weeks: Week A, Week B …</option>
        </select>
        {cycle && (
          <>
            <span>over</span>
            <select
              className="form-select"
              aria-label="Length of the cycle"
              value={cycle.length}
              onChange={(event) => set({ cycle: { ...cycle, length: Number(event.target.value) } })}
            >
              {(cycle.unit === 'days' ? [1, 2, 3, 4, 5, 6, 7, 8, 9, 10] : [2, 3, 4]).map((length) => (
                <option key={length} value={length}>
                  {length} {cycle.unit === 'days' ? (length === 1 ? 'day' : 'days') : 'weeks'}
                </option>
              ))}
            </select>
            <label className="tick">
              <input
                type="checkbox"
                checked={cycle.restartsEachTerm}
                onChange={(event) => set({ cycle: { ...cycle, restartsEachTerm: event.target.checked } })}
              />{' '}
              each term begins anew
            </label>
          </>
        )}
      </p>
      {cycle && cycleDays.length > 0 && (
        <p className="soft">
          {cycleDays
            .map(
              (days, index) =>
                `${cycle.unit === 'weeks' ? `Week ${String.fromCharCode(65 + index)}` : `Day ${index + 1}`}: ${days} school days`,
            )
            .join(' · ')}
        </p>
      )}
      <Refusal text={refusal} />
    </section>
  )
}
