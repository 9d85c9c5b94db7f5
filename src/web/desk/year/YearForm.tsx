import { useDeferredValue, useState } from 'react'
import { call } from '../api'
import { addDays, daysBetween, todayIn, type Day } from '../../shared/days'
import type { YearPlanRequest } from '../types'
import { DayField } from '../event/DayField'
import { Refusal } from '../Refusal'
import { useOrganisation } from '../session/queries'
import { useImpact, useRemoval } from './queries'
import { BreakImport } from './BreakImport'
import { ImpactPanel } from './ImpactPanel'
import { useYearActs } from './YearPlanPage'
import { YearStrip } from './YearStrip'
import { t } from './words'

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
  const middle = plan.first && plan.last ? addDays(plan.first, Math.floor(daysBetween(plan.first, plan.last) / 2)) : today
  const begin = (year: YearPlanRequest) => (setFrom(year), setPlan(pick(year)))
  const set = (change: Partial<YearPlanRequest>) => setPlan((before) => ({ ...before, ...change }))
  const isSavedByOthers = (start.version ?? 0) > (from.version ?? 0)
  if (isSavedByOthers && JSON.stringify(plan) === JSON.stringify(pick(from))) begin(start)
  const asked = useDeferredValue(JSON.stringify(plan))
  const isChanged = asked !== JSON.stringify(pick(from))
  const impact = useImpact(id, asked, mayEdit && (isChanged || id === null))
  const [isRemoving, setIsRemoving] = useState(false)
  const removal = useRemoval(id, isRemoving)
  const acts = useYearActs(id, id === null ? null : pick(from), begin, onDone)
  const problem = acts.problem
  const on = (field: string) =>
    problem?.on(field) ?? (impact.error && 'on' in impact.error ? (impact.error as typeof problem)?.on(field) : undefined)
  return (
    <div className="year-columns">
      <form
        className="year-says"
        aria-label={t('year')}
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void acts.save(plan)
        }}
      >
        <fieldset disabled={!mayEdit || isRemoving}>
          <YearStrip plan={plan} />
          <p className="when-line">
            <label htmlFor="year-name">{t('year')}</label>
            <input
              id="year-name"
              className="form-control year-name"
              value={plan.name ?? ''}
              onChange={(event) => set({ name: event.target.value })}
            />
            <span>{t('from')}</span>
            <DayField
              id="first"
              label={t('firstDayOfTheYear')}
              value={plan.first}
              today={today}
              refusal={on('first')}
              onChange={(first) => set({ first })}
            />
            <span>{t('to')}</span>
            <DayField
              id="last"
              label={t('lastDayOfTheYear')}
              value={plan.last}
              today={today}
              refusal={on('last')}
              onChange={(last) => set({ last })}
            />
            <Refusal text={on('name')} />
          </p>
          <Spans
            title={t('terms')}
            what="term"
            spans={plan.terms}
            today={plan.first ?? today}
            near={middle}
            refusal={on('terms')}
            onChange={(terms) => set({ terms })}
          />
          <Spans
            title={t('breaks')}
            what="break"
            spans={plan.breaks}
            today={plan.first ?? today}
            near={middle}
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
            <p>{t.rich('somebodyElseSavedNameWhile', { name: start.name }, <b />)}</p>
            <button type="button" className="btn btn-outline-ink" onClick={() => begin(start)}>
              {t('takeTheirsDropMine')}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={() => (setFrom(start), set({ version: start.version }))}>
              {t('keepMineToBeSaved')}
            </button>
          </div>
        )}
        {problem && problem.status !== 409 && Object.keys(problem.errors).length === 0 && (
          <p className="notice" role="alert">
            {problem.message}
          </p>
        )}
        {isRemoving && (
          <Removing
            name={from.name ?? ''}
            dates={removal.data?.dates}
            problem={removal.error?.message}
            isBusy={acts.isSaving}
            onRemove={() => acts.remove(plan.version ?? 0)}
            onKeep={() => setIsRemoving(false)}
          />
        )}
        {mayEdit && !isRemoving && (
          <p className="event-acts">
            <button
              type="submit"
              className="btn btn-spruce"
              disabled={acts.isSaving || isSavedByOthers || (!isChanged && id !== null)}
            >
              {acts.isSaving ? t('saving') : sayWhatFollows(impact.data?.dates)}
            </button>
            {onLeave && (
              <button type="button" className="btn btn-quiet" onClick={onLeave}>
                {t('discard')}
              </button>
            )}
            <span className="stretch" />
            {id && (
              <button type="button" className="btn btn-brick" onClick={() => setIsRemoving(true)}>
                {t('removeThisYear')} …
              </button>
            )}
          </p>
        )}
      </form>
      {isRemoving && id ? (
        <ImpactPanel
          impact={removal.data}
          isAsked
          asked="removal"
          lookAt={(edition, signal) => call('GET', `/year-plans/${id}/removal/editions/${edition}`, undefined, { signal })}
        />
      ) : (
        <ImpactPanel
          impact={isChanged || id === null ? impact.data : undefined}
          isAsked={isChanged || id === null}
          asked={asked}
          lookAt={(edition, signal) => {
            const year = JSON.parse(asked) as YearPlanRequest
            return id
              ? call('POST', `/year-plans/preview/editions/${edition}?id=${id}`, year, { signal })
              : call('POST', `/year-plans/preview/editions/${edition}`, year, { signal })
          }}
        />
      )}
    </div>
  )
}

interface RemovingProps {
  name: string
  /** That would be others; not known yet while it is reckoned. */
  dates: number | undefined
  problem: string | undefined
  isBusy: boolean
  onRemove: () => void
  onKeep: () => void
}

/** Asks again, with what follows beside it. */
function Removing({ name, dates, problem, isBusy, onRemove, onKeep }: RemovingProps) {
  return (
    <div className="conflict" role="alert">
      <p>{t.rich('whatFollowedGoesOn', { name }, <b />)}</p>
      {problem && <p className="refusal">{problem}</p>}
      <button type="button" className="btn btn-brick" disabled={isBusy || dates === undefined} onClick={onRemove}>
        {dates ? t('removeAndChangeDates', { count: dates }) : t('removeThisYear')}
      </button>{' '}
      <button type="button" className="btn btn-quiet" autoFocus onClick={onKeep}>
        {t('keepThisYear')}
      </button>
    </div>
  )
}

function pick(plan: YearPlanRequest): YearPlanRequest {
  const { name, first, last, terms, breaks, cycle, version } = plan
  return { name, first, last, terms, breaks, cycle, version }
}

function sayWhatFollows(dates: number | undefined): string {
  if (!dates) return t('saveTheYearPlan')
  return t('saveAndChangeDates', { count: dates })
}

interface SpansProps {
  title: string
  what: 'term' | 'break'
  spans: Span[]
  today: Day
  /** The middle of the year: a day without a year is one of it. */
  near: Day
  refusal?: string
  onChange: (spans: Span[]) => void
}

function Spans({ title, what, spans, today, near, refusal, onChange }: SpansProps) {
  const set = (index: number, change: Partial<Span>) =>
    onChange(spans.map((span, at) => (at === index ? { ...span, ...change } : span)))
  const last = spans[spans.length - 1]?.last
  const add = () => {
    const first = last ? addDays(last, 7) : today
    onChange([...spans, { name: t(`new_${what}`), first, last: addDays(first, what === 'term' ? 90 : 4) }])
  }
  return (
    <section className="spans">
      <h2>{title}</h2>
      {spans.length === 0 && <p className="soft">{t(`none_${what}`)}</p>}
      {spans.map((span, index) => (
        <p key={index} className="when-line">
          <input
            className="form-control span-name"
            aria-label={t(`nameOf_${what}`, { index: index + 1 })}
            value={span.name}
            onChange={(event) => set(index, { name: event.target.value })}
          />
          <DayField
            id={`${what}-first-${index}`}
            label={t('firstDayOfName', { name: span.name })}
            value={span.first}
            today={today}
            near={near}
            onChange={(first) => first && set(index, { first })}
          />
          <span>{t('to')}</span>
          <DayField
            id={`${what}-last-${index}`}
            label={t('lastDayOfName', { name: span.name })}
            value={span.last}
            today={today}
            near={near}
            onChange={(day) => day && set(index, { last: day })}
          />
          <button type="button" className="as-link" onClick={() => onChange(spans.filter((_, at) => at !== index))}>
            {t.rich('takeOutName', { name: span.name }, <span className="visually-hidden" />)}
          </button>
        </p>
      ))}
      <Refusal text={refusal} />
      <button type="button" className="btn btn-outline-ink" onClick={add}>
        {t(`add_${what}`)}
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
      <h2>{t('dayCycle')}</h2>
      <p className="when-line">
        <span>{t('schoolDaysAreNumbered')}</span>
        <select className="form-select" aria-label={t('dayCycle')} value={unit} onChange={(event) => choose(event.target.value)}>
          <option value="none">{t('notAtAll')}</option>
          <option value="days">{t('byDaysDay1Day')}</option>
          <option value="weeks">{t('byWeeksWeekAWeek')}</option>
        </select>
        {cycle && (
          <>
            <span>{t('over')}</span>
            <select
              className="form-select"
              aria-label={t('lengthOfTheCycle')}
              value={cycle.length}
              onChange={(event) => set({ cycle: { ...cycle, length: Number(event.target.value) } })}
            >
              {(cycle.unit === 'days' ? [1, 2, 3, 4, 5, 6, 7, 8, 9, 10] : [2, 3, 4]).map((length) => (
                <option key={length} value={length}>
                  {cycle.unit === 'days' ? t('days', { count: length }) : t('weeks', { count: length })}
                </option>
              ))}
            </select>
            <label className="tick">
              <input
                type="checkbox"
                checked={cycle.restartsEachTerm}
                onChange={(event) => set({ cycle: { ...cycle, restartsEachTerm: event.target.checked } })}
              />{' '}
              {t('eachTermBeginsAnew')}
            </label>
          </>
        )}
      </p>
      {cycle && cycleDays.length > 0 && (
        <p className="soft">
          {cycleDays
            .map((days, index) =>
              cycle.unit === 'weeks'
                ? t('schoolDaysOfWeek', { week: String.fromCharCode(65 + index), count: days })
                : t('schoolDaysOfDay', { day: index + 1, count: days }),
            )
            .join(' · ')}
        </p>
      )}
      <Refusal text={refusal} />
    </section>
  )
}
