import { vi } from 'vitest'
import { addDays } from '../../src/web/shared/days'
import type { Addresses, Edition, Entry, Look, PageData, Palette, Part } from '../../src/web/reader/edition'

/* A reading page as the server would send it, on Tuesday, 24 November 2026, at ten in the morning in Halifax. */

export const now = new Date('2026-11-24T14:00:00Z')

export const palette: Palette = {
  page: '#FFFDF9',
  grid: '#DDD5C7',
  busy: '#FFFDF9',
  empty: '#FAF7F1',
  today: '#E2EDE7',
  text: '#1B2A33',
  soft: '#4B575D',
  accent: '#2D6A8E',
  onAccent: '#FFFDF9',
}

const usualLook: Look = {
  view: 'month',
  views: ['month', 'week', 'day', 'list', 'cards', 'smallMonth'],
  navigation: true,
  legend: true,
  zoneLabel: true,
  clock: 'twentyFour',
  language: 'en',
  light: palette,
  dark: { ...palette, page: '#1B252B', text: '#ECE6D9' },
  dates: 'short',
  size: 'normal',
  density: 'normal',
  corner: 'square',
  scheme: 'light',
  onEntry: 'details',
  emptyText: '',
  failedText: '',
  grouping: 'day',
  severalDays: 'each',
  picturesInMonth: false,
  line: (['time', 'plate', 'title', 'place'] as const).map((piece) => ({ piece, text: '' })),
}

export const port = { plate: 'PW', name: 'Port Watch', colour: 'harbour', canBeChosen: true, slug: 'port-watch', named: [] }
export const starboard = {
  plate: 'SW',
  name: 'Starboard Watch',
  colour: 'timber',
  canBeChosen: true,
  slug: 'starboard-watch',
  named: [],
}
export const slipway = { plate: 'SLIP', name: 'Slipway', colour: 'slate', canBeChosen: false, slug: 'slipway', named: [] }

export function edition(look: Partial<Look> = {}, more: Partial<Edition> = {}): Edition {
  return {
    name: 'Dates for junior families',
    description: 'Questions to the office.',
    organisation: 'Pinewick Harbour School',
    zone: 'America/Halifax',
    sites: null,
    locale: 'en-GB',
    firstDayOfWeek: 1,
    sources: [port, starboard, slipway],
    from: null,
    to: null,
    isWhole: false,
    showsPlates: true,
    isLive: false,
    isOnFrontPage: false,
    look: { ...usualLook, ...look },
    ...more,
  }
}

let made = 0

/** @param when A day or two for what lasts all day (the end is exclusive), else "2026-11-24 14:00-15:30". */
export function entry(title: string, when: string, part: Partial<Entry> = {}): Entry {
  const [day = '', times] = when.split(' ')
  const [from = '', to = ''] = (times ?? '').split('-')
  const [first = '', end = ''] = day.split('/')
  const span = times
    ? { start: `${first}T${from}:00-04:00`, end: `${end || first}T${to}:00-04:00`, allDay: false }
    : { start: first, end: end || nextDay(first), allDay: true }
  return {
    id: `entry-${++made}/${first}`,
    title,
    ...span,
    place: '',
    description: '',
    state: 'live',
    plates: ['PW'],
    category: null,
    own: null,
    links: [],
    files: [],
    picture: null,
    contact: '',
    hasPage: true,
    isBreak: false,
    people: [],
    recurs: false,
    tags: [],
    kind: 'event',
    certainty: 'certain',
    ...part,
  } as Entry
}

function nextDay(day: string): string {
  return new Date(new Date(`${day}T00:00:00Z`).getTime() + 86_400_000).toISOString().slice(0, 10)
}

export function part(month: string, entries: Entry[], of: Edition): Part {
  return { month, from: `${month}-01`, to: `${month}-28`, edition: of, entries, years: [] }
}

export const addresses: Addresses = {
  base: '/c/pinewick/juniors',
  page: 'https://dates.example/c/pinewick/juniors',
  feed: 'https://dates.example/c/pinewick/juniors.ics',
  webcal: 'webcal://dates.example/c/pinewick/juniors.ics',
  atom: 'https://dates.example/c/pinewick/juniors.atom',
}

/** The day on which all of it is read. */
const TODAY = '2026-11-24'

/** Today, or the first day of an edition that begins later. */
function firstDayOf({ from, to }: Edition): string {
  if (from && TODAY < from) return from
  return to && TODAY >= to ? addDays(to, -1) : TODAY
}

export function pageOf(entries: Entry[], of: Edition = edition(), more: Partial<Addresses> = {}): PageData {
  return {
    version: 'v1',
    addresses: { ...addresses, ...more },
    painted: { view: of.look.view, day: firstDayOf(of), today: TODAY, languages: [] },
    months: [part(of.isWhole ? 'all' : '2026-11', entries, of)],
  }
}

/** What is below a page, by the rest of its address; an address that is not named here does not answer, a number is a status. */
export function serve(answers: Record<string, unknown>): string[] {
  const asked: string[] = []
  vi.stubGlobal('fetch', (address: string) => {
    const rest = address.replace(addresses.base, '')
    asked.push(rest)
    const answer = answers[rest]
    if (answer === undefined) return Promise.reject(new TypeError('The network is away.'))
    if (typeof answer === 'number') return Promise.resolve(new Response('', { status: answer }))
    return Promise.resolve(new Response(JSON.stringify(answer)))
  })
  return asked
}
