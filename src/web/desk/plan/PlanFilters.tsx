import { lazy, Suspense, useState } from 'react'
import { useLists } from '../lists/queries'
import type { Calendar, Group, Occurrence } from '../types'
import { noFilter, type Filter, type Plan } from './usePlanAddress'
import { t } from './words'

const LanesDialog = lazy(() => import('./LanesDialog').then(({ LanesDialog: shown }) => ({ default: shown })))

/** What stands on the screen, beside the lists, to be narrowed by. */
export interface Offered {
  categories: string[]
  tags: string[]
  places: string[]
  people: string[]
}

export function offeredBy(occurrences: Occurrence[]): Offered {
  return {
    categories: occurrences.map((one) => one.category?.name ?? ''),
    tags: occurrences.flatMap((one) => one.tags),
    places: occurrences.map((one) => one.place),
    people: occurrences.flatMap((one) => one.people),
  }
}

interface PlanFiltersProps {
  plan: Plan
  offered: Offered
  calendars: Calendar[]
  /** Names of groups of calendars. */
  groups: string[]
}

/** What the plan, and all that is made of it, is narrowed to. */
export function PlanFilters({ plan, offered, calendars, groups }: PlanFiltersProps) {
  const lists = useLists().data
  const named = (entries: { name: string }[] = []) => entries.map(({ name }) => name)
  return (
    <>
      <CalendarsChoice plan={plan} calendars={calendars} groups={groups} />
      <FilterChoice
        plan={plan}
        name="category"
        all={t('allCategories')}
        offered={[...offered.categories, ...named(lists?.categories)]}
        first={{ [due]: t('whatIsDue'), [tentative]: t('whatIsNotCertainYet') }}
      />
      <FilterChoice plan={plan} name="tag" all={t('allTags')} offered={offered.tags} />
      <FilterChoice plan={plan} name="place" all={t('allPlaces')} offered={[...offered.places, ...named(lists?.places)]} />
      <FilterChoice plan={plan} name="person" all={t('allPeople')} offered={offered.people} first={{ me: t('mine') }} />
      {plan.filter.words !== '' && <span className="is-narrowed-to">{t('saysWords', { words: plan.filter.words })}</span>}
      {Object.values(plan.filter).some((value) => value !== '') && (
        <button type="button" className="as-link" onClick={() => plan.go({ filter: noFilter })}>
          {t('showAll')}
        </button>
      )}
    </>
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

interface FilterChoiceProps {
  plan: Plan
  name: 'category' | 'tag' | 'place' | 'person'
  all: string
  offered: string[]
  /** Offered before the others, under other words. */
  first?: Record<string, string>
}

function FilterChoice({ plan, name, all, offered, first = {} }: FilterChoiceProps) {
  const value = plan.filter[name]
  const values = [...new Set([...offered, value])]
    .filter((one) => one !== '' && !(one in first))
    .sort((one, other) => one.localeCompare(other))
  if (values.length === 0 && value === '') return null
  return (
    <select
      className={`form-select ${value === '' ? '' : 'is-narrowed'}`}
      aria-label={t(`narrowBy_${name}`)}
      value={value}
      onChange={(event) => plan.go({ filter: { ...plan.filter, [name]: event.target.value } })}
    >
      <option value="">{all}</option>
      {Object.entries(first).map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
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

/** In place of a category, for the server too: deadlines, and what may yet not take place. */
const due = ':due'
const tentative = ':tentative'

function isOf(one: Occurrence, category: string): boolean {
  if (category === due) return one.kind === 'deadline'
  if (category === tentative) return one.certainty === 'tentative'
  return category === '' || one.category?.name === category
}

export function narrowed(occurrences: Occurrence[], filter: Filter): Occurrence[] {
  return occurrences.filter(
    (one) =>
      isOf(one, filter.category) &&
      (filter.tag === '' || one.tags.includes(filter.tag)) &&
      (filter.place === '' || one.place === filter.place) &&
      (filter.person === '' || (filter.person === 'me' ? one.isMine : one.people.includes(filter.person))),
  )
}

/** The calendars that the filter lets through. */
export function calendarsOf(filter: Filter, calendars: Calendar[], groups: Group[]): Calendar[] {
  return inGroup(calendars, groups, filter.group).filter(
    (one) => filter.calendar === '' || filter.calendar.split(',').includes(one.plate),
  )
}

/** The calendars of a group; without one all that are in use. */
function inGroup(calendars: Calendar[], groups: Group[], name: string): Calendar[] {
  if (name === archived) return calendars.filter((calendar) => calendar.isArchived)
  const group = groups.find((one) => one.name === name)
  return calendars.filter((calendar) => !calendar.isArchived && (!group || group.calendars.includes(calendar.id)))
}
