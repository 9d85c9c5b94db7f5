import { addDays, sayDay, sayMonth, saySpan, monthOf } from '../../shared/days'
import { firstDay } from '../../shared/slips'
import { addressOf, shownOn } from '../dates'
import type { Calendar, NameFound, Occurrence, SearchFound } from '../types'
import { sayTime } from '../times'
import { t } from './words'

/** One thing that was found, and where it is. */
export interface Choice {
  key: string
  to: string
  title: string
  /** What stands behind the title: when it is, or what it is. */
  about: string
  /** On which it stands, or which it is. */
  calendars: Calendar[]
  state?: Occurrence['state']
}

export interface ChoiceGroup {
  name: string
  choices: Choice[]
}

/** What was found, in the order in which it is shown: where somebody wants to go first, then what comes next. */
export function groupsOf(found: SearchFound, text: string, calendars: Calendar[], locale: string): ChoiceGroup[] {
  const calendarOf = new Map(calendars.map((one) => [one.id, one]))
  const named = (kind: NameFound['kind']) => found.names.filter((one) => one.kind === kind)
  const event = (one: Occurrence): Choice => ({
    key: one.eventId,
    to: addressOf(one),
    title: one.title,
    about: [
      `${sayDay(firstDay(one), locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })}, ${sayTime(one)}`,
      one.place,
      one.recurs ? t('recurs') : '',
    ]
      .filter(Boolean)
      .join(' · '),
    calendars: shownOn(one, calendarOf),
    state: one.state,
  })
  const all: Choice = {
    key: 'all',
    to: `/plan?${new URLSearchParams({ view: 'list', span: 'year', words: text })}`,
    title: t('allOfThemInTheList'),
    about: t('allOfAYear'),
    calendars: [],
  }
  const events = [...found.coming, ...found.over]
  const groups: ChoiceGroup[] = [
    { name: t('goTo'), choices: [...found.spans.map((span) => spanChoice(span, locale)), ...daysOf(found.names, locale)] },
    { name: t('whatComesNext'), choices: found.coming.map(event) },
    { name: t('isOver'), choices: found.over.map(event) },
    { name: t('list'), choices: events.length > 0 ? [all] : [] },
    {
      name: t('calendars'),
      choices: named('calendar').map((one) => ({
        key: `calendar-${one.id}`,
        to: `/calendars/${one.id}`,
        title: one.name,
        about: '',
        calendars: calendars.filter((calendar) => calendar.id === one.id),
      })),
    },
    {
      name: t('editions'),
      choices: named('edition').map((one) => plain(one, one.mayEdit ? `/editions/${one.id}` : `/editions/${one.id}/read`)),
    },
    { name: t('people'), choices: named('person').map((one) => plain(one, '/people')) },
    {
      name: t('allThatIs'),
      choices: [
        ...named('place').map((one) => inList(one, { place: one.name }, t('inThisPlace'))),
        ...named('category').map((one) => inList(one, { category: one.name }, t('ofThisCategory'))),
        ...named('group').map((one) => inList(one, { group: one.name }, t('ofThisGroup'))),
      ],
    },
  ]
  return groups.filter((group) => group.choices.length > 0)
}

function spanChoice({ kind, first }: SearchFound['spans'][number], locale: string): Choice {
  const said = {
    day: () => sayDay(first, locale, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }),
    week: () => saySpan(first, addDays(first, 6), locale),
    month: () => sayMonth(monthOf(first), locale),
  }[kind]()
  const view = { day: 'day', week: 'lanes', month: 'month' }[kind]
  return { key: `${kind}-${first}`, to: `/plan?view=${view}&day=${first}`, title: said, about: t(kind), calendars: [] }
}

/** Terms and breaks. */
function daysOf(names: NameFound[], locale: string): Choice[] {
  return names.flatMap((one) =>
    one.first && one.last
      ? {
          key: `days-${one.name}-${one.first}`,
          to: `/plan?view=lanes&day=${one.first}`,
          title: one.name,
          about: saySpan(one.first, one.last, locale),
          calendars: [],
        }
      : [],
  )
}

function plain(one: NameFound, to: string): Choice {
  return { key: `${one.kind}-${one.id}`, to, title: one.name, about: '', calendars: [] }
}

function inList(one: NameFound, narrowing: Record<string, string>, about: string): Choice {
  return { ...plain(one, `/plan?${new URLSearchParams({ view: 'list', span: 'year', ...narrowing })}`), about }
}
