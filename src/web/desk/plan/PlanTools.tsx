import { lazy, Suspense, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useChoosing } from '../chosen/choosing'
import { useLists } from '../lists/queries'
import type { Calendar, Occurrence } from '../types'
import { noFilter, type Filter, type Plan } from './usePlanAddress'
import { t } from './words'

const ViewsDialog = lazy(() => import('./ViewsDialog').then(({ ViewsDialog: shown }) => ({ default: shown })))
const LanesDialog = lazy(() => import('./LanesDialog').then(({ LanesDialog: shown }) => ({ default: shown })))

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
  const [isOpen, setIsOpen] = useState(false)
  const [isViewing, setViewing] = useState(false)
  const choosing = useChoosing()
  const count = Object.values(plan.filter).filter((value) => value !== '').length
  const categories = [...occurrences.map((one) => one.category?.name ?? ''), ...(lists?.categories ?? []).map((one) => one.name)]
  const places = [...occurrences.map((one) => one.place), ...(lists?.places ?? []).map((one) => one.name)]
  return (
    <div className="plan-tools">
      {mayEdit && <LineField />}
      {mayMakeSeveral && <Link to="/events/several">{t('severalAtOnce')}</Link>}
      {mayEdit && (
        <button
          type="button"
          className="as-link"
          aria-pressed={choosing.isOn}
          onClick={choosing.isOn ? choosing.stop : choosing.start}
        >
          {choosing.isOn ? t('choosingDates') : t('chooseDates')}
        </button>
      )}
      <button type="button" className="as-link" onClick={() => setViewing(true)}>
        {t('views')}
      </button>
      {isViewing && (
        <Suspense fallback={null}>
          <ViewsDialog onHide={() => setViewing(false)} />
        </Suspense>
      )}
      <span className="stretch" />
      <button type="button" className="narrow-toggle" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
        {count === 0 ? t('narrow') : t('narrowedBy', { count })}
      </button>
      <div className={isOpen ? 'narrowing is-open' : 'narrowing'}>
        <CalendarsChoice plan={plan} calendars={calendars} groups={groups} />
        <FilterChoice plan={plan} name="category" all={t('allCategories')} offered={categories} />
        <FilterChoice plan={plan} name="tag" all={t('allTags')} offered={occurrences.flatMap((one) => one.tags)} />
        <FilterChoice plan={plan} name="place" all={t('allPlaces')} offered={places} />
        {plan.filter.words !== '' && <span className="is-narrowed-to">{t('saysWords', { words: plan.filter.words })}</span>}
        {count > 0 && (
          <button type="button" className="as-link" onClick={() => plan.go({ filter: noFilter })}>
            {t('showAll')}
          </button>
        )}
      </div>
    </div>
  )
}

/** All calendars, those of a group, or one. */
function CalendarsChoice({ plan, calendars, groups }: { plan: Plan; calendars: Calendar[]; groups: string[] }) {
  const { group, calendar } = plan.filter
  const isNarrowed = group !== '' || calendar !== ''
  const [isChoosing, setChoosing] = useState(false)
  const plates = calendar === '' ? [] : calendar.split(',')
  const choose = (value: string) => {
    if (value === 'several') return setChoosing(true)
    const [kind, name] = [value.slice(0, value.indexOf(':')), value.slice(value.indexOf(':') + 1)]
    plan.go({ filter: { ...plan.filter, group: kind === 'group' ? name : '', calendar: kind === 'calendar' ? name : '' } })
  }
  if (calendars.length < 2 && groups.length === 0) return null
  return (
    <>
      <select
        className={isNarrowed ? 'form-select is-narrowed' : 'form-select'}
        aria-label={t('narrowBy_calendar')}
        value={calendar !== '' ? `calendar:${calendar}` : group !== '' ? `group:${group}` : ''}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="">{t('allCalendars')}</option>
        <option value="several">{t('chooseSeveral')}</option>
        {plates.length > 1 && <option value={`calendar:${calendar}`}>{plates.join(', ')}</option>}
        {groups.length > 0 && (
          <optgroup label={t('groups')}>
            {groups.map((one) => (
              <option key={one} value={`group:${one}`}>
                {one === archived ? t('archived') : one}
              </option>
            ))}
          </optgroup>
        )}
        <optgroup label={t('calendarsAlone')}>
          {[...calendars]
            .sort((one, other) => one.name.localeCompare(other.name))
            .map((one) => (
              <option key={one.id} value={`calendar:${one.plate}`}>
                {one.name} ({one.plate})
              </option>
            ))}
        </optgroup>
      </select>
      {isChoosing && (
        <Suspense fallback={null}>
          <LanesDialog
            calendars={calendars}
            chosen={plates}
            onHide={() => setChoosing(false)}
            onChoose={(chosen) => {
              setChoosing(false)
              choose(chosen.length === 0 ? '' : `calendar:${chosen.join(',')}`)
            }}
          />
        </Suspense>
      )}
    </>
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
  name: 'category' | 'tag' | 'place'
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
          {one}
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
