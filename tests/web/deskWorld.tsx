import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, vi } from 'vitest'
import type {
  Calendar,
  Edition,
  EditionDraft,
  EditionLine,
  EditionPreview,
  Lists,
  Needs,
  Occurrence,
  PaletteChoice,
  Session,
} from '../../src/web/desk/types'
import { Problem } from '../../src/web/desk/Problem'
import { useSession } from '../../src/web/desk/session/queries'
import { seeAs } from '../../src/web/desk/seeAs'
import { ToastsProvider } from '../../src/web/desk/Toasts'
import { moment } from './moment'
import { palette as paper } from './pageWorld'

/* The desk of a made-up school, with the answers of its API written down: their types are the server's own. */

afterEach(() => {
  cleanup()
  seeAs(null)
  vi.unstubAllGlobals()
})

export const session: Session = {
  antiforgeryToken: 'token',
  organisations: [{ slug: 'pinewick', name: 'Pinewick Harbour School' }],
  person: { id: 'ada', name: 'Ada Brook', email: 'ada@pinewick.example', language: '', isAdministrator: true, maySignOff: true },
  organisation: {
    name: 'Pinewick Harbour School',
    slug: 'pinewick',
    zone: 'America/Halifax',
    locale: 'en-GB',
    firstDayOfWeek: 1,
    yearStartsIn: 9,
  },
}

export function calendar(plate: string, name: string, part: Partial<Calendar> = {}): Calendar {
  return {
    id: plate.toLowerCase(),
    name,
    plate,
    colour: 'harbour',
    zone: 'America/Halifax',
    description: '',
    disclosure: { members: 'complete', link: 'complete', everyone: 'complete' },
    detail: 'complete',
    mayContribute: true,
    mayEdit: true,
    mayPublish: true,
    mayManage: true,
    events: 12,
    version: 3,
    delivery: { state: 'upToDate', changedAt: moment, failure: null },
    readerships: [],
    requiresSignOff: false,
    isArchived: false,
    isFollowed: false,
    hasSecretLink: false,
    keptBy: [],
    ...part,
  }
}

export const port = calendar('PW', 'Port Watch')
export const starboard = calendar('SW', 'Starboard Watch', { colour: 'timber' })
export const staff = calendar('STF', 'Staff room', {
  colour: 'madder',
  disclosure: { members: 'complete', link: 'nothing', everyone: 'nothing' },
})

/** A date of Port Watch. */
export const date = (title: string, part: Partial<Occurrence> = {}) =>
  ({
    eventId: title,
    recurrenceId: '2026-12-01T14:00:00',
    calendarId: 'pw',
    title,
    start: '2026-12-01T14:00:00-04:00',
    end: '2026-12-01T15:30:00-04:00',
    allDay: false,
    state: 'live',
    place: 'Slipway',
    category: null,
    tags: [],
    recurs: false,
    isException: false,
    own: null,
    detail: 'complete',
    alsoOn: [],
    isYours: false,
    version: 1,
    ...part,
  }) as Occurrence

export function line(name: string, part: Partial<EditionLine> = {}): EditionLine {
  return {
    id: name.toLowerCase().replaceAll(' ', '-'),
    name,
    audience: 'everyone',
    sources: [{ plate: 'PW', name: 'Port Watch', colour: 'harbour', canBeChosen: true, slug: 'port-watch', named: [] }],
    view: 'month',
    isStandard: false,
    calendarId: null,
    freshness: { state: 'upToDate', changedAt: moment, failure: null },
    mayEdit: true,
    mayRead: false,
    isInTheMaking: false,
    findings: { keepsFromReaders: 0, toLookAt: 0, forInformation: 0 },
    ...part,
  }
}

const page = 'https://dates.example/c/pinewick/juniors'

export function edition(draft: Partial<EditionDraft> = {}, part: Partial<Edition> = {}): Edition {
  return {
    id: 'juniors',
    name: 'Juniors for families',
    edition: {
      name: 'Juniors for families',
      sources: [{ calendarId: 'pw' }, { calendarId: 'sw' }],
      audience: 'everyone',
      cap: 'complete',
      withCancelled: true,
      withUnfinished: false,
      withStaffTimes: false,
      withBreaks: false,
      mergesLookAlikes: true,
      tellsPlatesOfBusy: false,
      takesAll: false,
      onFrontPage: true,
      ...draft,
    },
    version: 7,
    isStandard: false,
    calendarId: null,
    isRemoved: false,
    isInTheMaking: false,
    freshness: { state: 'upToDate', changedAt: moment, failure: null },
    addresses: {
      isReady: true,
      page,
      embed: `${page}/embed`,
      feed: `${page}.ics`,
      webcal: `${page}.ics`.replace('https', 'webcal'),
      atom: `${page}.atom`,
      oEmbed: 'https://dates.example/oembed',
      snippetThatFits: `<div data-valtro="${page}/embed"></div>`,
      snippetFixed: `<iframe src="${page}/embed"></iframe>`,
      snippetLink: `<a href="${page}">Juniors for families</a>`,
    },
    linkMadeAt: null,
    ...part,
  }
}

export const preview: EditionPreview = {
  path: '/api/editions/drafts/1/page',
  entries: 41,
  merged: 2,
  closed: [],
  contrast: 14.2,
  darkContrast: 11.9,
  example: 'PW SW Boat lab',
}

const palettes: PaletteChoice[] = ['paper', 'quay'].map((name) => ({ name, light: paper, dark: paper }))

const lists: Lists = {
  categories: [{ id: 'exams', name: 'Assessment', colour: 'madder', events: 3, mostInAWeek: null }],
  places: [],
  retiredCategories: [],
  retiredPlaces: [],
  mayEdit: true,
  members: [],
}

const days: Record<string, string[]> = {}

/** Which days a text says, or which two it could be. */
export function readAs(text: string, ...meant: string[]) {
  days[text] = meant
}

/** What the API refuses, as it says so (RFC 9457). */
export function refusal(status: number, detail: string, errors: Record<string, string[]> = {}): Problem {
  return new Problem(status, '/problems/refused', detail, errors)
}

type Answer = unknown
type Asked = { what: string; body: unknown }

const noNeeds: Needs = {
  findings: [],
  more: 0,
  counts: { keepsFromReaders: 0, toLookAt: 0, forInformation: 0 },
  toDecide: 0,
  failing: 0,
}

/**
 * Answers by method and path, "PUT /editions/juniors". A function is asked with the body that was sent; a problem is refused.
 * What is not named answers 404.
 */
export function answer(own: Record<string, Answer>): Asked[] {
  const asked: Asked[] = []
  const all: Record<string, Answer> = {
    'GET /session': session,
    'GET /calendars': [port, starboard, staff],
    'GET /groups': [{ id: 'g', name: 'Classes', calendars: ['pw', 'sw'] }],
    'GET /lists': lists,
    'GET /lists/places/words': [],
    'GET /editions/palettes': palettes,
    'POST /editions/preview': preview,
    'GET /sign-off/count': { toDecide: 0 },
    'GET /needs': noNeeds,
    'GET /reach': { editions: [], calendars: [] },
    // What the server reads in fields is tested there: here as much as these tests type.
    'POST /typed/day': ({ text }: { text: string }) => ({ days: text in days ? days[text] : [] }),
    'POST /typed/time': ({ text }: { text: string }) => ({ time: /^\d\d:\d\d$/.test(text) ? `${text}:00` : null }),
    ...own,
  }
  vi.stubGlobal('fetch', (address: string, init: RequestInit = {}) => {
    const path = address.replace(/^\/api/, '')
    const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : undefined
    const what = `${init.method ?? 'GET'} ${path}`
    asked.push({ what, body })
    const found = all[what] ?? all[what.replace(/\?.*$/, '')]
    const given: unknown = typeof found === 'function' ? (found as (body: unknown) => unknown)(body) : found
    if (given === undefined) return Promise.resolve(respond(404, { detail: `${what} is not there.` }))
    if (given instanceof Problem)
      return Promise.resolve(respond(given.status, { type: given.type, detail: given.message, errors: given.errors }))
    return Promise.resolve(given === null ? new Response(null, { status: 204 }) : respond(200, given))
  })
  return asked
}

function respond(status: number, body: unknown): Response {
  return new Response(JSON.stringify(body), { status })
}

/** A screen at an address; the other addresses say only where somebody has come to. */
export function show(path: string, element: ReactNode, at = path) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const router = createMemoryRouter(
    [
      { path, element },
      { path: '*', element: <p>another screen</p> },
    ],
    { initialEntries: [at] },
  )
  render(
    <QueryClientProvider client={queries}>
      <ToastsProvider>
        <RouterProvider router={router} />
      </ToastsProvider>
    </QueryClientProvider>,
  )
  return { user: userEvent.setup(), router }
}

/** As the desk does: no screen is shown before it is known who looks. */
export const SignedIn = ({ children }: { children: ReactNode }) => (useSession().data ? children : null)

export const sent = (asked: Asked[], what: string) => asked.filter((one) => one.what === what).map((one) => one.body)

/** The edition in what was sent. */
export const draftSent = (body: unknown) => (body as { edition: EditionDraft }).edition

export const choose = (label: string) => screen.getByLabelText<HTMLSelectElement>(label)
