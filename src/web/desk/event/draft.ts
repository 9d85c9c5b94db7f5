import { weekdayOf, type Day } from '../../shared/days'
import type { Happening, HappeningRequest } from '../api'

export type Pattern = 'once' | 'daily' | 'weekly'

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
  pattern: Pattern
  interval: string
  weekdays: number[]
  ends: 'never' | 'on' | 'after'
  until: Day | null
  count: string
}

export function newDraft(calendarId: string, day: Day): Draft {
  return {
    title: '',
    calendarId,
    allDay: false,
    date: day,
    endDate: null,
    from: '09:00',
    to: '10:00',
    zone: null,
    place: '',
    description: '',
    pattern: 'once',
    interval: '1',
    weekdays: [weekdayOf(day)],
    ends: 'never',
    until: null,
    count: '10',
  }
}

export function draftOf(happening: Happening): Draft {
  const { repeat } = happening
  return {
    title: happening.title,
    calendarId: happening.calendarId,
    allDay: happening.allDay,
    date: happening.date,
    endDate: happening.endDate === happening.date ? null : happening.endDate,
    from: happening.from?.slice(0, 5) ?? '09:00',
    to: happening.to?.slice(0, 5) ?? '10:00',
    zone: happening.zone,
    place: happening.place,
    description: happening.description,
    pattern: repeat?.frequency ?? 'once',
    interval: String(repeat?.interval ?? 1),
    weekdays: repeat?.weekdays ?? [weekdayOf(happening.date)],
    ends: repeat?.ends ?? 'never',
    until: repeat?.until ?? null,
    count: String(repeat?.count ?? 10),
  }
}

export function requestOf(draft: Draft, version: number | null): HappeningRequest {
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
    repeat:
      draft.pattern === 'once'
        ? null
        : {
            frequency: draft.pattern,
            interval: numberIn(draft.interval),
            weekdays: draft.pattern === 'weekly' ? draft.weekdays : null,
            ends: draft.ends,
            until: draft.ends === 'on' ? draft.until : null,
            count: draft.ends === 'after' ? numberIn(draft.count) : null,
          },
    version,
  }
}

/** What is no whole number is sent as 0, which the server refuses with a sentence. */
function numberIn(text: string): number {
  return /^\s*\d{1,6}\s*$/.test(text) ? Number(text) : 0
}
