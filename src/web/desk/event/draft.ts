import { weekdayOf, type Day } from '../../shared/days'
import { isMore } from '../openness'
import type {
  Calendar,
  Detail,
  EventFile,
  EventLink,
  Happening,
  HappeningRequest,
  InBreaks,
  MonthPosition,
  Repeat,
  Skip,
} from '../api'

export type Pattern = 'once' | Repeat['pattern']

/** What stands in the form. */
export interface Draft {
  title: string
  calendarId: string
  allDay: boolean
  date: Day | null
  endDate: Day | null
  from: string | null
  to: string | null
  zone: string | null
  place: string
  description: string
  categoryId: string | null
  tags: string
  pattern: Pattern
  interval: string
  weekdays: number[]
  by: MonthPosition
  monthDay: number
  ordinal: number
  weekday: number
  month: number
  skip: Skip
  numbers: number[]
  ruleText: string
  ends: 'never' | 'on' | 'after'
  until: Day | null
  count: string
  inBreaks: InBreaks
  /** Days added by hand. */
  extra: Day[]
  /** Names of dates removed by hand. */
  removed: string[]
  /** Further calendars it is shown on. */
  placements: string[]
  links: EventLink[]
  files: EventFile[]
  contact: string
  notes: string
  cap: CapDraft
  showFrom: Day | null
  showUntil: Day | null
}

/** What the event itself allows at most; null is “as the calendar says”. */
export interface CapDraft {
  members: Detail | null
  link: Detail | null
  everyone: Detail | null
}

/** The parts of a repetition that follow from its first day until somebody says otherwise. */
export function positionOf(day: Day): Pick<Draft, 'monthDay' | 'ordinal' | 'weekday' | 'month'> {
  const dayOfMonth = Number(day.slice(8))
  return {
    monthDay: dayOfMonth,
    ordinal: Math.min(5, Math.ceil(dayOfMonth / 7)),
    weekday: weekdayOf(day),
    month: Number(day.slice(5, 7)),
  }
}

/** @param from When it starts, such as 14:15; an hour is a usual length. */
export function newDraft(calendarId: string, day: Day, from: string | null = null): Draft {
  const start = from && /^\d{2}:\d{2}$/.test(from) ? from : '09:00'
  return {
    title: '',
    calendarId,
    allDay: false,
    date: day,
    endDate: null,
    from: start,
    to: start < '23:00' ? `${String(Number(start.slice(0, 2)) + 1).padStart(2, '0')}${start.slice(2)}` : '23:59',
    zone: null,
    place: '',
    description: '',
    categoryId: null,
    tags: '',
    pattern: 'once',
    interval: '1',
    weekdays: [weekdayOf(day)],
    by: 'day',
    ...positionOf(day),
    skip: 'omit',
    numbers: [1],
    ruleText: '',
    ends: 'never',
    until: null,
    count: '10',
    inBreaks: 'skip',
    extra: [],
    removed: [],
    placements: [],
    links: [],
    files: [],
    contact: '',
    notes: '',
    cap: { members: null, link: null, everyone: null },
    showFrom: null,
    showUntil: null,
  }
}

/** The form for a request, such as one that was read from a line of text. */
export function draftOfRequest(request: HappeningRequest, calendarId: string, day: Day): Draft {
  const date = request.date ?? day
  return { ...newDraft(calendarId, date), ...fieldsOf(request, date), inBreaks: 'skip' }
}

export function draftOf(happening: Happening): Draft {
  return {
    ...newDraft(happening.calendarId, happening.date),
    ...fieldsOf({ ...happening, ...requestable(happening) }, happening.date),
    files: happening.files,
    calendarId: happening.calendarId,
  }
}

/** What stands in an event's form in another shape than in the event. */
function requestable(happening: Happening) {
  return {
    categoryId: happening.category?.id ?? null,
    files: happening.files.map((file) => file.id),
    isDraft: happening.state === 'draft',
  }
}

/** A new event like another one: all of it, but that it is by itself from now on. */
export function draftOfCopy(happening: Happening, calendar: Calendar): Draft {
  const draft = draftOf(happening)
  // What its new calendar shows no more of anyway needs no saying, and may not be said.
  const less = (audience: keyof CapDraft) => {
    const said = draft.cap[audience]
    return said !== null && isMore(calendar.disclosure[audience], said) ? said : null
  }
  const cap = { members: less('members'), link: less('link'), everyone: less('everyone') }
  return { ...draft, calendarId: calendar.id, placements: [], extra: [], removed: [], cap }
}

/** What was handed in, in the form again. */
export function draftOfProposal(request: HappeningRequest, stored: Happening): Draft {
  const date = request.date ?? stored.date
  const known = new Map(stored.files.map((file) => [file.id, file]))
  const files = (request.files ?? []).map((id) => known.get(id) ?? { id, name: 'a file that was brought', type: '', size: 0 })
  return { ...newDraft(request.calendarId, date), ...fieldsOf(request, date), files, calendarId: request.calendarId }
}

function fieldsOf(said: Omit<HappeningRequest, 'calendarId'>, date: Day): Partial<Draft> {
  const repeat = said.repeat
  return {
    title: said.title ?? '',
    allDay: said.allDay,
    date,
    endDate: !said.endDate || said.endDate === date ? null : said.endDate,
    from: said.from?.slice(0, 5) ?? '09:00',
    to: said.to?.slice(0, 5) ?? '10:00',
    zone: said.zone ?? null,
    place: said.place ?? '',
    description: said.description ?? '',
    categoryId: said.categoryId ?? null,
    tags: (said.tags ?? []).join(', '),
    pattern: repeat?.pattern ?? 'once',
    interval: String(repeat?.interval ?? 1),
    weekdays: repeat?.weekdays ?? [weekdayOf(date)],
    by: repeat?.by ?? 'day',
    ...givenPosition(repeat),
    skip: repeat?.skip ?? 'omit',
    numbers: repeat?.numbers ?? [1],
    ruleText: repeat?.text ?? '',
    ends: repeat?.ends ?? 'never',
    until: repeat?.until ?? null,
    count: String(repeat?.count ?? 10),
    inBreaks: said.inBreaks ?? 'skip',
    extra: said.extra ?? [],
    removed: said.removed ?? [],
    placements: said.placements ?? [],
    links: said.links ?? [],
    contact: said.contact ?? '',
    notes: said.notes ?? '',
    cap: said.cap ?? { members: null, link: null, everyone: null },
    showFrom: said.showFrom ?? null,
    showUntil: said.showUntil ?? null,
  }
}

function givenPosition(repeat: Repeat | null): Partial<Draft> {
  const given: Partial<Draft> = {}
  if (repeat?.monthDay) given.monthDay = repeat.monthDay
  if (repeat?.ordinal) given.ordinal = repeat.ordinal
  if (repeat?.weekday) given.weekday = repeat.weekday
  if (repeat?.month) given.month = repeat.month
  return given
}

/** @param isDraft It stays with those who make it. */
export function requestOf(draft: Draft, isDraft = false): HappeningRequest {
  return {
    calendarId: draft.calendarId,
    title: draft.title,
    allDay: draft.allDay,
    date: draft.date,
    endDate: draft.endDate,
    from: draft.allDay || !draft.from ? null : `${draft.from}:00`,
    to: draft.allDay || !draft.to ? null : `${draft.to}:00`,
    zone: draft.zone,
    place: draft.place,
    description: draft.description,
    repeat: repeatOf(draft),
    inBreaks: draft.pattern === 'once' || draft.pattern === 'cycle' ? 'ignore' : draft.inBreaks,
    extra: draft.extra,
    removed: draft.removed,
    categoryId: draft.categoryId,
    tags: draft.tags
      .split(',')
      .map((tag) => tag.trim().replace(/^#/, ''))
      .filter((tag) => tag !== ''),
    placements: draft.placements,
    links: draft.links.filter((link) => link.url.trim() !== ''),
    files: draft.files.map((file) => file.id),
    contact: draft.contact,
    notes: draft.notes,
    cap: draft.cap,
    showFrom: draft.showFrom,
    showUntil: draft.showUntil,
    isDraft,
  }
}

function repeatOf(draft: Draft): Repeat | null {
  if (draft.pattern === 'once') return null
  if (draft.pattern === 'text') return { pattern: 'text', text: draft.ruleText, ends: 'never' }
  const ending = {
    ends: draft.ends,
    until: draft.ends === 'on' ? (draft.until ?? undefined) : undefined,
    count: draft.ends === 'after' ? numberIn(draft.count) : null,
  }
  if (draft.pattern === 'cycle') return { pattern: 'cycle', numbers: draft.numbers, weekdays: draft.weekdays, ...ending }
  const interval = numberIn(draft.interval)
  if (draft.pattern === 'daily') return { pattern: 'daily', interval, ...ending }
  if (draft.pattern === 'weekly') return { pattern: 'weekly', interval, weekdays: draft.weekdays, ...ending }
  return {
    pattern: draft.pattern,
    interval,
    by: draft.by,
    monthDay: draft.by === 'day' ? draft.monthDay : null,
    ordinal: draft.by === 'day' ? null : draft.ordinal,
    weekday: draft.by === 'weekday' ? draft.weekday : null,
    month: draft.pattern === 'yearly' ? draft.month : null,
    skip: draft.by === 'day' && draft.monthDay > 28 ? draft.skip : 'omit',
    ...ending,
  }
}

/** What is no whole number is sent as 0, which the server refuses with a sentence. */
function numberIn(text: string): number {
  return /^\s*\d{1,6}\s*$/.test(text) ? Number(text) : 0
}
