import type { EditionDraft, LookDraft, PatternPart, WindowDraft } from '../types'
import { t } from './words'

/** An edition in the form: nothing is left to defaults that the form would have to guess. */
export type Draft = Omit<EditionDraft, 'name' | 'window' | 'look'> & {
  name: string
  audience: 'members' | 'link' | 'everyone'
  window: WindowDraft
  look: LookDraft
}

const plainLook: LookDraft = {
  view: 'month',
  views: ['month', 'week', 'list'],
  navigation: true,
  legend: true,
  zoneLabel: true,
  clock: 'reader',
  palette: 'paper',
  dates: 'short',
  size: 'normal',
  density: 'normal',
  corner: 'square',
  scheme: 'reader',
  onEntry: 'details',
  grouping: 'day',
  severalDays: 'each',
  picturesInMonth: false,
} as LookDraft

export const emptyDraft: Draft = {
  name: '',
  sources: [],
  audience: 'everyone',
  cap: 'complete',
  window: { from: 'beginning', to: 'open', withPast: true } as WindowDraft,
  withCancelled: true,
  withUnfinished: false,
  withStaffTimes: false,
  withBreaks: false,
  mergesLookAlikes: true,
  tellsPlatesOfBusy: false,
  feed: 'series',
  kinds: 'both',
  deadlines: 'events',
  reminding: 'nothing',
  takesAll: false,
  onFrontPage: true,
  atPlace: null,
  ofPerson: null,
  look: plainLook,
}

/** What is null was left to what is usual. */
const said = <T extends object>(given: T | null | undefined) =>
  Object.fromEntries(Object.entries(given ?? {}).filter(([, value]) => value !== null)) as Partial<T>

export function draftOf(edition: EditionDraft): Draft {
  return {
    ...emptyDraft,
    ...edition,
    name: edition.name ?? '',
    audience: (edition.audience ?? 'everyone') as Draft['audience'],
    window: { ...emptyDraft.window, ...said(edition.window) },
    look: { ...plainLook, ...said(edition.look) },
  }
}

/** Whether there is anything to be looked at. */
export const hasCalendars = (edition: EditionDraft): boolean => edition.takesAll || edition.sources.length > 0

/** Common cases, to begin with. */
export const presets: { name: string; about: string; change: Partial<Draft> }[] = [
  {
    name: t('aClassPage'),
    about: t('theClassAndTheWhole'),
    change: {
      window: { from: 'week', to: 'endOfTerm', withPast: true } as WindowDraft,
      look: { ...plainLook, view: 'month', views: ['month', 'week', 'list'] },
    },
  },
  {
    name: t('theWholeSchool'),
    about: t('everythingThatIsPublicWith'),
    change: { withBreaks: true, look: { ...plainLook, view: 'month', views: ['month', 'week', 'list', 'cards'] } },
  },
  {
    name: t('readersChoose'),
    about: t('everyOpenCalendarReadersNarrow'),
    change: { takesAll: true, withBreaks: true, look: { ...plainLook, view: 'month', views: ['month', 'week', 'list'] } },
  },
  {
    name: t('nextFiveInASidebar'),
    about: t('whatComesNextInA'),
    change: {
      limit: 5,
      onFrontPage: false,
      feed: 'dates',
      withCancelled: true,
      window: { from: 'now', to: 'open', withPast: false } as WindowDraft,
      look: { ...plainLook, view: 'list', views: ['list'], navigation: false, legend: false },
    },
  },
  {
    name: t('dueThisWeek'),
    about: t('whatIsToBeHanded'),
    change: {
      kinds: 'deadlines',
      window: { from: 'week', to: 'weeks', count: 1, withPast: true } as WindowDraft,
      look: { ...plainLook, view: 'list', views: ['list', 'month'], navigation: false },
    },
  },
  {
    name: t('forTheStaff'),
    about: t('forMembersWithDraftsAnd'),
    change: {
      audience: 'members',
      withUnfinished: true,
      withBreaks: true,
      look: { ...plainLook, view: 'week', views: ['week', 'month', 'list'] },
    },
  },
  {
    name: t('aPlacesWeek'),
    about: t('whenAPlaceIsTaken'),
    change: {
      takesAll: true,
      cap: 'times',
      feed: 'dates',
      tellsPlatesOfBusy: true,
      mergesLookAlikes: false,
      look: { ...plainLook, view: 'week', views: ['week', 'day', 'month'] },
    },
  },
  {
    name: t('busyOfAPerson'),
    about: t('busyOfAPersonAbout'),
    change: {
      audience: 'members',
      takesAll: true,
      cap: 'times',
      feed: 'dates',
      withStaffTimes: true,
      mergesLookAlikes: false,
      look: { ...plainLook, view: 'week', views: ['week', 'day', 'month'] },
    },
  },
  {
    name: t('busyTimesOnly'),
    about: t('whenSomethingIsTakenAnd'),
    change: {
      cap: 'times',
      tellsPlatesOfBusy: true,
      mergesLookAlikes: false,
      look: { ...plainLook, view: 'week', views: ['week', 'day', 'month'] },
    },
  },
]

export const usualTitle: PatternPart[] = [{ piece: 'plate' }, { piece: null, text: ' ' }, { piece: 'title' }] as PatternPart[]
export const usualLine: PatternPart[] = (['time', 'plate', 'title', 'place'] as const).map((piece) => ({
  piece,
})) as PatternPart[]

/** A pattern without the part at a place; moved to another place; with one more at its end. */
export const withoutPart = (pattern: PatternPart[], index: number) => pattern.filter((_, at) => at !== index)

export function movedPart(pattern: PatternPart[], index: number, by: number): PatternPart[] {
  const to = index + by
  const part = pattern[index]
  if (!part || to < 0 || to >= pattern.length) return pattern
  const rest = withoutPart(pattern, index)
  return [...rest.slice(0, to), part, ...rest.slice(to)]
}
