import { useState } from 'react'
import { Plate } from '../../shared/Plate'
import type { Problem } from '../Problem'
import type { Calendar, EditionPreview, FilterDraft, Lists } from '../types'
import { ChangeLevel } from '../calendars/LevelCell'
import { Refusal } from '../Refusal'
import { CalendarFinder } from '../calendars/CalendarFinder'
import { useCalendars, useGroups } from '../calendars/queries'
import { useLists } from '../lists/queries'
import type { Draft } from './draft'
import { audienceWords } from './EditionsPage'
import { Choice, Step, Tick } from './Step'
import { t } from './words'

interface SourcesStepProps {
  draft: Draft
  isStandard: boolean
  preview: EditionPreview | undefined
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
}

/** Which calendars, and what of them; what of them does not reach the audience is named where it stands. */
export function SourcesStep({ draft, isStandard, preview, problem, onChange: change }: SourcesStepProps) {
  const onChange = (sources: Draft['sources']) => change({ sources })
  const calendars = useCalendars().data ?? []
  const [adding, setAdding] = useState(draft.sources.length === 0)
  const byId = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  const remove = (id: string) => onChange(draft.sources.filter((source) => source.calendarId !== id))
  const isFixed = isStandard || draft.takesAll === true
  const shut = calendars.filter((calendar) => calendar.disclosure[draft.audience] === 'nothing')
  // One that takes all has every calendar that is open, whatever was chosen before.
  const sources = draft.takesAll
    ? calendars
        .filter((calendar) => !shut.includes(calendar))
        .map(({ id }) => draft.sources.find((source) => source.calendarId === id) ?? { calendarId: id, filter: null })
    : draft.sources
  return (
    <Step number={1} title={t('sources')} about={t('whichCalendarsAndWhatOf')}>
      {!isStandard && (
        <Tick checked={draft.takesAll ?? false} onChange={(takesAll) => change({ takesAll, sources })}>
          {t('everyCalendarThatIsOpen', { whom: audienceWords[draft.audience] })}
        </Tick>
      )}
      {draft.takesAll && shut.length > 0 && (
        <p className="remark">
          {t('theseAreClosedAndStay', { whom: audienceWords[draft.audience] })} {shut.map((calendar) => calendar.name).join(', ')}
        </p>
      )}
      <ul className="sources">
        {sources.map((source) => {
          const calendar = byId.get(source.calendarId)
          const closed = preview?.closed.find((one) => one.calendarId === source.calendarId)
          if (!calendar) return null
          return (
            <li key={source.calendarId}>
              <SourceRow
                calendar={calendar}
                filter={source.filter ?? null}
                onRemove={isFixed ? null : () => remove(source.calendarId)}
                onFilter={(filter) =>
                  onChange(sources.map((one) => (one.calendarId === source.calendarId ? { ...one, filter } : one)))
                }
              />
              {closed && (
                <ClosedRow
                  calendar={calendar}
                  closed={closed}
                  audience={draft.audience}
                  onLeaveOut={isStandard ? null : () => remove(source.calendarId)}
                />
              )}
            </li>
          )
        })}
      </ul>
      <Refusal text={problem?.on('sources')} />
      {!isFixed && (
        <button type="button" className="as-link" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          {adding ? t('thatIsAll') : t('addCalendars')}
        </button>
      )}
      {adding && !isFixed && <AddSources calendars={calendars} draft={draft} onChange={onChange} />}
    </Step>
  )
}

function AddSources({
  calendars,
  draft,
  onChange,
}: {
  calendars: Calendar[]
  draft: Draft
  onChange: (sources: Draft['sources']) => void
}) {
  const groups = useGroups().data ?? []
  const has = (id: string) => draft.sources.some((source) => source.calendarId === id)
  const add = (ids: string[]) =>
    onChange([
      ...draft.sources,
      ...ids
        .filter((id) => !has(id) && calendars.some((calendar) => calendar.id === id))
        .map((calendarId) => ({ calendarId, filter: null })),
    ])
  return (
    <div className="placement-list">
      {groups.length > 0 && (
        <div className="group-buttons" role="group" aria-label={t('aWholeGroup')}>
          {groups.map((group) => (
            <button key={group.id} type="button" className="btn btn-outline-ink" onClick={() => add(group.calendars)}>
              {group.name}
            </button>
          ))}
        </div>
      )}
      <CalendarFinder calendars={calendars} chosen={[]}>
        {(calendar) => (
          <Tick
            checked={has(calendar.id)}
            onChange={(checked) =>
              checked ? add([calendar.id]) : onChange(draft.sources.filter((source) => source.calendarId !== calendar.id))
            }
          >
            <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {calendar.name}
          </Tick>
        )}
      </CalendarFinder>
    </div>
  )
}

interface SourceRowProps {
  calendar: Calendar
  filter: FilterDraft | null
  onRemove: (() => void) | null
  onFilter: (filter: FilterDraft | null) => void
}

function SourceRow({ calendar, filter, onRemove, onFilter }: SourceRowProps) {
  const [isOpen, setOpen] = useState(false)
  const lists = useLists().data
  return (
    <>
      <div className="source">
        <Plate code={calendar.plate} colour={calendar.colour} /> <span>{calendar.name}</span>
        <span className="stretch" />
        <button type="button" className="as-link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {sayFilter(filter, (id) => nameOf(lists, id))}
          <span className="visually-hidden"> {t('ofNameChangeIt', { name: calendar.name })}</span>
        </button>
        {onRemove && (
          <button type="button" className="remove" aria-label={t('leaveOutName', { name: calendar.name })} onClick={onRemove}>
            ×
          </button>
        )}
      </div>
      {isOpen && <FilterForm name={calendar.name} filter={filter} categories={lists?.categories ?? []} onFilter={onFilter} />}
    </>
  )
}

/** "everything", "only Assessment", "without practical, “staff”". */
export function sayFilter(filter: FilterDraft | null, nameOf: (category: string) => string): string {
  const named = filter
    ? [
        ...(filter.categories ?? []).map(nameOf),
        ...(filter.tags ?? []).map((tag) => `#${tag}`),
        ...(filter.text ? [`“${filter.text}”`] : []),
      ]
    : []
  if (!filter || named.length === 0) return t('everything')
  return t(filter.mode === 'only' ? 'onlyNamed' : 'withoutNamed', { named: named.join(', ') })
}

interface FilterFormProps {
  name: string
  filter: FilterDraft | null
  categories: { id: string; name: string; colour: string }[]
  onFilter: (filter: FilterDraft | null) => void
}

function FilterForm({ name, filter, categories, onFilter }: FilterFormProps) {
  const now: FilterDraft = filter ?? ({ mode: 'only', categories: [], tags: [], text: '' } as FilterDraft)
  const [tags, setTags] = useState((now.tags ?? []).join(', '))
  const change = (part: Partial<FilterDraft>) => onFilter({ ...now, ...part })
  const chosen = now.categories ?? []
  return (
    <div className="filter-form" role="group" aria-label={t('whatOfName', { name })}>
      <p>
        {t('take')}{' '}
        <Choice
          label={t('onlyOrWithout')}
          value={now.mode}
          options={{ only: t('only'), except: t('everythingBut') }}
          onChange={(mode) => change({ mode })}
        />{' '}
        {t('whatHasAnyOfThese')}
      </p>
      <div className="ticks">
        {categories.map((category) => (
          <Tick
            key={category.id}
            checked={chosen.includes(category.id)}
            onChange={(checked) =>
              change({ categories: checked ? [...chosen, category.id] : chosen.filter((one) => one !== category.id) })
            }
          >
            <span className={`category-mark hue-${category.colour}`} aria-hidden="true" /> {category.name}
          </Tick>
        ))}
      </div>
      <label>
        {t('tags')}{' '}
        <input
          className="form-control"
          value={tags}
          placeholder={t('practicalAway')}
          onChange={(event) => setTags(event.target.value)}
          onBlur={() =>
            change({
              tags: tags
                .split(',')
                .map((tag) => tag.trim())
                .filter(Boolean),
            })
          }
        />
      </label>
      <label>
        {t('wordsInTitlePlaceOr')}{' '}
        <input className="form-control" value={now.text ?? ''} onChange={(event) => change({ text: event.target.value })} />
      </label>
      <button type="button" className="as-link" onClick={() => (setTags(''), onFilter(null))}>
        {t('takeEverythingAgain')}
      </button>
    </div>
  )
}

interface ClosedRowProps {
  calendar: Calendar
  closed: EditionPreview['closed'][number]
  audience: Draft['audience']
  onLeaveOut: (() => void) | null
}

function ClosedRow({ calendar, closed, audience, onLeaveOut }: ClosedRowProps) {
  const [isOpening, setOpening] = useState(false)
  return (
    <div className="closed-source">
      <p>
        {t.rich('nameIsClosedTo', { name: closed.name, whom: audienceWords[audience], count: closed.entries }, <b />)}{' '}
        {closed.mayOpen ? (
          <button type="button" className="as-link" aria-expanded={isOpening} onClick={() => setOpening(!isOpening)}>
            {t('openIt')}
          </button>
        ) : (
          t('anAdministratorCanOpenIt')
        )}
        {onLeaveOut && (
          <>
            {' · '}
            <button type="button" className="as-link" onClick={onLeaveOut}>
              {t('leaveItOut')}
            </button>
          </>
        )}
      </p>
      {isOpening && <ChangeLevel calendar={calendar} audience={audience} onClose={() => setOpening(false)} />}
    </div>
  )
}

function nameOf(lists: Lists | undefined, id: string): string {
  return (
    [...(lists?.categories ?? []), ...(lists?.retiredCategories ?? [])].find((category) => category.id === id)?.name ??
    t('oneThatIsNotOffered')
  )
}
