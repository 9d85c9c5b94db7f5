// @vitest-environment happy-dom
import { cleanup, screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import { CalendarChoice } from '../../src/web/desk/event/CalendarChoice'
import { rememberSavedOn } from '../../src/web/desk/lastPlan'
import { isMeant, sorted, type Order } from '../../src/web/desk/calendars/finding'
import { readable } from '../../src/web/desk/plan/crowded'
import { laneGroups, openAtFirst } from '../../src/web/desk/plan/laneGroups'
import { PlanPage } from '../../src/web/desk/plan/PlanPage'
import { usePlanAddress } from '../../src/web/desk/plan/usePlanAddress'
import { roomForBreaks, YearRibbon } from '../../src/web/desk/plan/YearRibbon'
import type { Group } from '../../src/web/desk/types'
import { layoutDay } from '../../src/web/shared/timeGrid'
import { ToastsProvider } from '../../src/web/desk/Toasts'
import { ChangesProvider } from '../../src/web/desk/changes/Changes'
import { answer, calendar, date, refusal, SignedIn, show } from './deskWorld'

const many = Array.from({ length: 24 }, (_, number) =>
  calendar(`C${number}`, `Class ${String(number).padStart(2, '0')}`, { events: number }),
)
const group = (name: string, from: number, to: number): Group =>
  ({ id: name, name, calendars: many.slice(from, to).map((one) => one.id), version: 1 }) as unknown as Group

beforeEach(() => {
  localStorage.clear()
  vi.restoreAllMocks()
  // This document knows no sizes, so nothing ever comes in sight.
  vi.stubGlobal('IntersectionObserver', undefined)
})

describe('lanes of many calendars', () => {
  test('each stands once, in the smallest group that holds it, and the rest behind', () => {
    const sections = laneGroups(many, [group('All', 0, 15), group('Juniors', 0, 4), group('Alone', 19, 20)])
    expect(sections.map(({ name, calendars }) => [name, calendars.length])).toEqual([
      ['Juniors', 4],
      ['All', 11],
      ['Other calendars', 9],
    ])
    expect([...openAtFirst(sections)]).toEqual(['Juniors'])
  })

  test('few stand as they are', () => {
    expect(laneGroups(many.slice(0, 20), [group('Juniors', 0, 4)]).length).toBe(1)
    expect(laneGroups(many, []).length).toBe(1)
  })

  test('a folded group says how much is on, opens, stays as it was left, and is part of a kept view', async () => {
    const kept: unknown[] = []
    const open = () => {
      answer({
        'GET /plan-views': () => kept,
        'POST /plan-views': (view: object) => kept.push({ ...view, id: 'v', mayRemove: true }),
        'GET /calendars': many,
        'GET /groups': [group('Juniors', 0, 10), group('Seniors', 10, 24)],
        'GET /occurrences': [date('Radio drill', { calendarId: 'c12' })],
        'GET /days': [],
        'GET /year': { from: '2026-08-31', to: '2027-08-30', weeks: [] },
      })
      return show(
        '/plan',
        <ToastsProvider>
          <SignedIn>
            <ChangesProvider>
              <PlanPage />
            </ChangesProvider>
          </SignedIn>
        </ToastsProvider>,
        '/plan?day=2026-12-01',
      )
    }
    const { user } = open()
    const seniors = await screen.findByRole('button', { name: /Seniors 14 calendars/ })
    expect(seniors.getAttribute('aria-expanded')).toBe('false')
    expect(screen.queryByText('Radio drill')).toBeNull()
    expect(screen.getByText('1 date')).toBeTruthy()
    await user.click(seniors)
    expect(await screen.findByText('Radio drill')).toBeTruthy()
    expect(JSON.parse(localStorage.getItem('valtro.lanes.pinewick') ?? '{}')).toEqual({ Seniors: true })

    // A kept view brings it back as it was.
    const views = async () => user.click(screen.getByRole('button', { name: 'Views' }))
    await views()
    await user.type(await screen.findByLabelText('Keep the plan as you look at it now'), 'Radio')
    await user.click(screen.getByRole('button', { name: 'Keep' }))
    await waitFor(() => expect(kept).toMatchObject([{ name: 'Radio', settings: { folds: '{"Seniors":true}' } }]))
    await user.click(screen.getByRole('button', { name: 'Close' }))
    await user.click(screen.getByRole('button', { name: /Seniors 14 calendars/ }))
    await waitFor(() => expect(screen.queryByText('Radio drill')).toBeNull())
    await views()
    await user.click(await screen.findByRole('button', { name: 'Radio' }))
    expect(await screen.findByText('Radio drill')).toBeTruthy()
  })
})

describe('a crowded hour', () => {
  const day = { start: 0, end: 24 * 3_600_000 }
  const at = (hour: number, hours: number, item: string) => ({
    item,
    stretch: { start: hour * 3_600_000, end: (hour + hours) * 3_600_000 },
  })

  test('shows as many as can be read, and by the hour how many more there are', () => {
    const placed = layoutDay(
      day,
      ['a', 'b', 'c', 'd'].map((item) => at(9, 1, item)).concat(at(9.5, 2, 'e'), at(14, 1, 'f')),
      0.02,
    )
    const { shown, more } = readable(placed, 2, 24)
    expect(shown.map((one) => one.item)).toEqual(['a', 'f'])
    expect(more).toEqual([{ top: 9 / 24, height: 1 / 24, count: 4 }])
    expect(shown.every((one) => one.columns <= 2)).toBe(true)
  })

  test('leaves out nothing where there is room', () => {
    const placed = layoutDay(
      day,
      ['a', 'b'].map((item) => at(9, 1, item)),
      0.02,
    )
    expect(readable(placed, 2, 24)).toEqual({ shown: placed, more: [] })
  })
})

test('among many calendars one is looked for by name, plate or group, and they are sorted', () => {
  const groups = [group('Juniors', 0, 4)]
  const found = (text: string) => many.filter((one) => isMeant(one, groups, text)).map((one) => one.plate)
  expect(found(' juni')).toEqual(['C0', 'C1', 'C2', 'C3'])
  expect(found('c19')).toEqual(['C19'])
  expect(found('CLASS 2')).toEqual(['C20', 'C21', 'C22', 'C23'])
  expect(found('nowhere')).toEqual([])
  expect(found('').length).toBe(24)
  const open = calendar('O', 'Open')
  const closed = calendar('X', 'A closed one', { disclosure: { members: 'complete', link: 'nothing', everyone: 'nothing' } })
  const times = calendar('T', 'Times', { disclosure: { members: 'complete', link: 'times', everyone: 'times' } })
  const order = (by: Order) => sorted([closed, open, times], by).map((one) => one.plate)
  expect(order('made')).toEqual(['X', 'O', 'T'])
  expect(order('open')).toEqual(['O', 'T', 'X'])
  expect(order('name')).toEqual(['X', 'O', 'T'])
  expect(sorted(many, 'events')[0]?.plate).toBe('C23')
})

test('on a phone the months of the year are pressed, since a week would be too small', async () => {
  vi.spyOn(window, 'matchMedia').mockReturnValue({
    matches: true,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  } as unknown as MediaQueryList)
  const week = (first: string, dates: number, overloads: string[] = []) => ({
    first,
    dates,
    term: null,
    closed: null,
    closedDays: 0,
    overloads,
  })
  answer({
    'GET /year': {
      weeks: [week('2026-11-16', 3), week('2026-11-23', 4), week('2026-11-30', 5), week('2026-12-07', 6, ['3 × Test for 7B'])],
    },
  })
  const Ribbon = () => <YearRibbon plan={usePlanAddress()} />
  const { user, router } = show(
    '/plan',
    <SignedIn>
      <Ribbon />
    </SignedIn>,
    '/plan?day=2026-12-01',
  )
  // The week of 30 November has most of its days in December.
  const november = await screen.findByRole('button', { name: 'November 2026, 7 dates' })
  const december = screen.getByRole('button', { name: 'December 2026, 11 dates, 3 × Test for 7B' })
  expect(document.querySelectorAll('.ribbon-overload').length).toBe(1)
  expect([november, december].map((one) => one.getAttribute('aria-current'))).toEqual([null, 'true'])
  december.focus()
  await user.keyboard('{ArrowLeft}{Enter}')
  // Today is in it.
  expect(router.state.location.search).toContain('day=2026-11-23')
})

test('where no calendar is chosen yet, those that something was saved on last are at hand', async () => {
  rememberSavedOn('c7')
  rememberSavedOn('c21')
  answer({ 'GET /calendars': many, 'GET /groups': [group('Juniors', 0, 12), group('Seniors', 12, 24)] })
  const choice = (value: string) => <CalendarChoice calendars={many} value={value} onChange={() => undefined} />
  const shown = () => screen.getAllByRole('radio').map((one) => one.parentElement?.textContent)
  show('/new', choice(''))
  expect(shown().slice(0, 2)).toEqual(['C7Class 07', 'C21Class 21'])
  cleanup()
  show('/old', choice('c3'))
  expect(shown()[0]).toContain('Class 03')
  expect(shown()[1]).toContain('Class 00')
})

test('the list of a year is sorted, turned by pages and taken along as it is narrowed', async () => {
  const asked = answer({
    'GET /occurrences/list': (() => ({
      total: 230,
      page: 1,
      pages: 3,
      occurrences: [date('Boat lab')],
      tags: ['knots', 'tides'],
    })) as never,
    'GET /year': { from: '2026-08-31', to: '2027-08-30', weeks: [] },
  })
  const { user, router } = show(
    '/plan',
    <SignedIn>
      <ChangesProvider>
        <PlanPage />
      </ChangesProvider>
    </SignedIn>,
    '/plan?view=list&span=year&day=2026-12-01&place=Slipway&calendar=PW',
  )
  expect(await screen.findByText('1–1 of 230')).toBeTruthy()
  expect(screen.getByRole('heading', { name: '1 September 2026 – 31 August 2027' })).toBeTruthy()
  const question = () => asked.filter((one) => one.what.startsWith('GET /occurrences/list')).at(-1)?.what
  expect(question()).toBe('GET /occurrences/list?from=2026-09-01&to=2027-09-01&order=time&place=Slipway&calendar=pw&page=1')
  await user.click(screen.getByRole('button', { name: 'Title' }))
  await user.click(screen.getByRole('button', { name: 'Next page ›' }))
  await waitFor(() => expect(question()).toMatch(/order=title.*page=2/))
  expect(screen.getByRole('link', { name: 'spreadsheet (.xlsx)' }).getAttribute('href')).toContain('place=Slipway')
  // What it is narrowed by leaves the order as it is, and begins at the first page.
  await user.selectOptions(screen.getByRole('combobox', { name: /tag/i }), 'knots')
  await waitFor(() => expect(question()).toMatch(/order=title.*tag=knots.*page=1/))
  await user.click(screen.getByRole('button', { name: 'Later year' }))
  await waitFor(() => expect(router.state.location.search).toContain('day=2027-09-01'))
})

test('a week that could not be read is not shown as an empty one', async () => {
  let isAway = true
  answer({
    'GET /occurrences': () => (isAway ? refusal(503, 'Valtro cannot reach its database.') : [date('Boat lab')]),
    'GET /days': [],
    'GET /year': { from: '2026-08-31', to: '2027-08-30', weeks: [] },
  })
  const { user } = show(
    '/plan',
    <SignedIn>
      <ChangesProvider>
        <PlanPage />
      </ChangesProvider>
    </SignedIn>,
    '/plan?day=2026-12-01',
  )
  expect(await screen.findByText(/is not known at the moment/)).toBeTruthy()
  expect(document.querySelector('.lanes')).toBeNull()
  isAway = false
  await user.click(screen.getByRole('button', { name: 'Try again' }))
  expect(await screen.findByText('Boat lab')).toBeTruthy()
})

test('names of breaks have the room up to the next, and none where that is too little', () => {
  expect([...roomForBreaks([null, 'Storm', 'Storm', null, 'Ice', 'Winter', null])]).toEqual([
    [1, 3],
    [4, 1],
    [5, 2],
  ])
})
