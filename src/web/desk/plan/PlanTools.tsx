import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useLists } from '../lists/queries'
import type { Calendar, Occurrence } from '../types'
import { noFilter, type Filter, type Plan } from './usePlanAddress'
import { t } from './words'

interface PlanToolsProps {
  plan: Plan
  /** All that is on, to offer what can be narrowed by. */
  occurrences: Occurrence[]
  /** Those that one of can be looked at alone. */
  calendars: Calendar[]
  mayEdit: boolean
  mayMakeSeveral: boolean
  /** Names of groups of calendars. */
  groups: string[]
}

/** A line to say an event in, and what the plan is narrowed to. */
export function PlanTools({ plan, occurrences, calendars, mayEdit, mayMakeSeveral, groups }: PlanToolsProps) {
  const lists = useLists().data
  const isNarrowed = Object.values(plan.filter).some((value) => value !== '')
  return (
    <div className="plan-tools">
      {mayEdit && <LineField />}
      {mayMakeSeveral && <Link to="/events/several">{t('severalAtOnce')}</Link>}
      <span className="stretch" />
      <FilterChoice plan={plan} name="group" all={t('allCalendars')} offered={groups} />
      <FilterChoice plan={plan} name="calendar" all={t('eachCalendar')} offered={calendars.map((one) => one.plate)} />
      <FilterChoice
        plan={plan}
        name="category"
        all={t('allCategories')}
        offered={[...occurrences.map((one) => one.category?.name ?? ''), ...(lists?.categories ?? []).map((one) => one.name)]}
      />
      <FilterChoice plan={plan} name="tag" all={t('allTags')} offered={occurrences.flatMap((one) => one.tags)} />
      <FilterChoice
        plan={plan}
        name="place"
        all={t('allPlaces')}
        offered={[...occurrences.map((one) => one.place), ...(lists?.places ?? []).map((one) => one.name)]}
      />
      {plan.filter.words !== '' && <span className="is-narrowed-to">{t('saysWords', { words: plan.filter.words })}</span>}
      {isNarrowed && (
        <button type="button" className="as-link" onClick={() => plan.go({ filter: noFilter })}>
          {t('showAll')}
        </button>
      )}
    </div>
  )
}

function LineField() {
  const [text, setText] = useState('')
  const navigate = useNavigate()
  const read = (event: React.FormEvent) => {
    event.preventDefault()
    if (text.trim() !== '') void navigate(`/events/new?line=${encodeURIComponent(text.trim())}`)
  }
  return (
    <form className="line-form" onSubmit={read} role="search" aria-label={t('newEventInOneLine')}>
      <input
        className="form-control"
        aria-label={t('sayAnEventInOne')}
        placeholder={t('lineExample')}
        value={text}
        maxLength={500}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="btn btn-outline-ink" disabled={text.trim() === ''}>
        {t('readIt')}
      </button>
    </form>
  )
}

interface FilterChoiceProps {
  plan: Plan
  name: keyof Filter
  all: string
  offered: string[]
}

function FilterChoice({ plan, name, all, offered }: FilterChoiceProps) {
  const value = plan.filter[name]
  const values = [...new Set([...offered, value])].filter((one) => one !== '').sort((one, other) => one.localeCompare(other))
  if (values.length === 0) return null
  return (
    <select
      className={`form-select ${value === '' ? '' : 'is-narrowed'}`}
      aria-label={t(`narrowBy_${name}`)}
      value={value}
      onChange={(event) => plan.go({ filter: { ...plan.filter, [name]: event.target.value } })}
    >
      <option value="">{all}</option>
      {values.map((one) => (
        <option key={one} value={one}>
          {one === archived ? t('archived') : one}
        </option>
      ))}
    </select>
  )
}

/** What stands in the filter of groups for the calendars that are archived. */
export const archived = 'archived'

export function narrowed(occurrences: Occurrence[], filter: Filter): Occurrence[] {
  return occurrences.filter(
    (one) =>
      (filter.category === '' || one.category?.name === filter.category) &&
      (filter.tag === '' || one.tags.includes(filter.tag)) &&
      (filter.place === '' || one.place === filter.place),
  )
}
