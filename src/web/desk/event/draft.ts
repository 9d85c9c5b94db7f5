import { addDays, daysBetween, weekdayOf, type Day } from '../../shared/days'
import { isMore } from '../openness'
import type { Calendar, Detail, EventFile, EventForm, CalendarEvent, MonthPosition, Repeat, Skip, Template } from '../types'
import { t } from './words'

export type Pattern = 'once' | Repeat['pattern']

/** What the form says just as it is sent. A new field that is typed as it is sent is one line in `blank`. */
type AsSent = Omit<EventForm, 'tags' | 'files' | 'repeat' | 'isDraft' | 'cap' | 'placements'>

/** What stands in the form. */
export interface Draft extends AsSent {
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
  countsTaking: boolean
  placements: string[]
  files: EventFile[]
  cap: CapDraft
}

/** What the event itself allows at most; null is “as the calendar says”. */
export interface CapDraft {
  members: Detail | null
  link: Detail | null
  everyone: Detail | null
}

const openCap: CapDraft = { members: null, link: null, everyone: null }

/** All that is sent as it is typed, where nothing is said. */
const blank: AsSent = {
  calendarId: '',
  title: '',
  subtitle: '',
  kind: 'event',
  certainty: 'certain',
  transparency: 'usual',
  allDay: false,
  date: null,
  endDate: null,
  from: null,
  to: null,
  zone: null,
  place: '',
  description: '',
  categoryId: null,
  inBreaks: 'skip',
  extra: [],
  removed: [],
  links: [],
  contact: '',
  people: [],
  staffSpan: null,
  picture: null,
  reminder: null,
  notes: '',
  showFrom: null,
  showUntil: null,
}

function asSent(said: Partial<AsSent>): AsSent {
  return Object.fromEntries(
    Object.entries(blank).map(([field, nothing]) => [field, said[field as keyof AsSent] ?? nothing]),
  ) as unknown as AsSent
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
    ...blank,
    calendarId,
    date: day,
    from: start,
    to: start < '23:00' ? `${String(Number(start.slice(0, 2)) + 1).padStart(2, '0')}${start.slice(2)}` : '23:59',
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
    countsTaking: true,
    placements: [],
    files: [],
    cap: openCap,
  }
}

/** The form for a request, such as one that was read from a line of text. */
export function draftOfRequest(request: Partial<EventForm>, calendarId: string, day: Day): Draft {
  const date = request.date ?? day
  return { ...newDraft(calendarId, date), ...fieldsOf(request, date), calendarId, inBreaks: 'skip' }
}

export function draftOf(calendarEvent: CalendarEvent): Draft {
  return {
    ...newDraft(calendarEvent.calendarId, calendarEvent.date),
    ...fieldsOf(calendarEvent, calendarEvent.date),
    files: calendarEvent.attached,
  }
}

/** A new event from a pattern, on a day: as long, and at the same time of day. */
export function draftOfTemplate(template: Template, calendarId: string, day: Day): Draft {
  const { date, endDate } = template.event
  const longer = date && endDate ? daysBetween(date, endDate) : 0
  return {
    ...newDraft(calendarId, day),
    ...fieldsOf({ ...template.event, date: day, endDate: addDays(day, longer) }, day),
    calendarId,
    placements: [],
    inBreaks: 'skip',
    files: template.attached,
  }
}

/** What is usual on a calendar, where nothing else was said. */
export function withUsual(draft: Draft, template: Template | undefined): Partial<Draft> {
  if (!template) return {}
  const { event } = template
  const isAsNew = draft.place === '' && draft.categoryId === null && draft.reminder === null && draft.title === ''
  const minutes = event.from && event.to && !event.allDay ? minutesBetween(event.from, event.to) : 0
  return {
    ...(draft.place === '' ? { place: event.place } : {}),
    ...(draft.categoryId === null ? { categoryId: event.categoryId ?? null } : {}),
    ...(draft.reminder === null ? { reminder: event.reminder ?? null } : {}),
    ...(isAsNew && minutes > 0 && draft.from ? { to: later(draft.from, minutes) } : {}),
  }
}

const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))
const minutesBetween = (from: string, to: string) => minutesOf(to) - minutesOf(from)

function later(from: string, minutes: number): string {
  const end = Math.min(minutesOf(from) + minutes, 24 * 60 - 1)
  return `${String(Math.floor(end / 60)).padStart(2, '0')}:${String(end % 60).padStart(2, '0')}`
}

/** A new event like another one: all of it, but that it is by itself from now on. */
export function draftOfCopy(calendarEvent: CalendarEvent, calendar: Calendar | undefined): Draft {
  const draft = draftOf(calendarEvent)
  // What its new calendar shows no more of anyway needs no saying, and may not be said.
  const less = (audience: keyof CapDraft) => {
    const said = draft.cap[audience]
    return said !== null && (!calendar || isMore(calendar.disclosure[audience], said)) ? said : null
  }
  const cap = { members: less('members'), link: less('link'), everyone: less('everyone') }
  return { ...draft, calendarId: calendar?.id ?? '', placements: [], extra: [], removed: [], cap }
}

/** What was handed in, in the form again. */
export function draftOfProposal(request: Partial<EventForm>, stored: CalendarEvent): Draft {
  const date = request.date ?? stored.date
  const known = new Map(stored.attached.map((file) => [file.id, file]))
  const files = (request.files ?? []).map((id) => known.get(id) ?? { id, name: t('aFileThatWasBrought'), type: '', size: 0 })
  return { ...newDraft(stored.calendarId, date), ...fieldsOf(request, date), files }
}

function fieldsOf(said: Partial<EventForm>, date: Day): Omit<Draft, 'files'> & Partial<Pick<Draft, 'files'>> {
  const repeat = said.repeat ?? null
  return {
    ...asSent(said),
    date,
    endDate: !said.endDate || said.endDate === date ? null : said.endDate,
    from: said.from?.slice(0, 5) ?? '09:00',
    to: said.to?.slice(0, 5) ?? '10:00',
    tags: (said.tags ?? []).join(', '),
    pattern: repeat?.pattern ?? 'once',
    interval: String(repeat?.interval ?? 1),
    weekdays: repeat?.weekdays ?? [weekdayOf(date)],
    by: repeat?.by ?? 'day',
    ...positionOf(date),
    ...givenPosition(repeat),
    skip: repeat?.skip ?? 'omit',
    numbers: repeat?.numbers ?? [1],
    ruleText: repeat?.text ?? '',
    ends: repeat?.ends ?? 'never',
    until: repeat?.until ?? null,
    count: String(repeat?.count ?? 10),
    countsTaking: repeat?.count ? (repeat.countsTaking ?? false) : true,
    placements: said.placements ?? [],
    cap: said.cap ?? openCap,
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
export function requestOf(draft: Draft, isDraft = false): EventForm {
  return {
    ...asSent(draft),
    from: draft.allDay || !draft.from ? null : `${draft.from}:00`,
    to: draft.allDay || !draft.to ? null : `${draft.to}:00`,
    repeat: repeatOf(draft),
    inBreaks: draft.pattern === 'once' || draft.pattern === 'cycle' ? 'ignore' : draft.inBreaks,
    tags: draft.tags
      .split(',')
      .map((tag) => tag.trim().replace(/^#/, ''))
      .filter((tag) => tag !== ''),
    placements: draft.placements,
    links: draft.links.filter((link) => link.url.trim() !== ''),
    files: draft.files.map((file) => file.id),
    people: (draft.people ?? []).filter((one) => one.name.trim() !== ''),
    cap: draft.cap,
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
    countsTaking: draft.ends === 'after' && draft.countsTaking && draft.inBreaks !== 'ignore',
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
