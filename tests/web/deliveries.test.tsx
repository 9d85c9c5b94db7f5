// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { DeliveriesPage } from '../../src/web/desk/deliveries/DeliveriesPage'
import { ReachOfCalendar } from '../../src/web/desk/deliveries/ReachSign'
import { answer, port, refusal, sent, show, SignedIn } from './deskWorld'

const reach = { id: 'one', state: 'some', changedAt: '2026-11-24T10:04:00Z', since: 212, usual: 240, most: 'hour', last: 'day' }

const deliveries = (part: Record<string, unknown> = {}) => ({
  id: 'one',
  name: 'Juniors for families',
  calendarId: null,
  reach,
  rhythms: [
    { rhythm: 'hour', usual: 96, since: 94, share: 0.98, mostly: 'phone' },
    { rhythm: 'seldom', usual: 1.5, since: 0, share: 0, mostly: 'other' },
  ],
  kinds: [{ kind: 'phone', usual: 96 }],
  days: [
    { day: '2026-11-23', programs: 240, withNewest: 96, times: 900, readers: 50, views: 61, lateMinutes: 40 },
    { day: '2026-11-24', programs: 214, withNewest: 212, times: 500, readers: 40, views: 44, lateMinutes: 0 },
  ],
  sites: [
    { site: 'families.pinewick.example', views: 1204 },
    { site: '', views: 17 },
  ],
  halfWithinMinutes: 180,
  lastFetchAt: '2026-11-24T11:00:00Z',
  termFrom: '2026-09-01',
  subscribers: 41,
  ...part,
})

const open = (own: Record<string, unknown>) => {
  const asked = answer(own)
  return {
    asked,
    ...show(
      '/editions/:id/deliveries',
      <SignedIn>
        <DeliveriesPage />
      </SignedIn>,
      '/editions/one/deliveries',
    ),
  }
}

describe('who has which version', () => {
  test('says how many have it, how often they ask, which sites frame it and what can be promised', async () => {
    open({ 'GET /editions/one/deliveries': deliveries() })
    expect(await screen.findByText('212', { selector: 'dd' })).toBeTruthy()
    expect(screen.getByText(/programs have what changed .*; 240 come on a usual day/)).toBeTruthy()
    expect(screen.getByText('3 h')).toBeTruthy()
    expect(screen.getByText('readers get a mail of changes')).toBeTruthy()
    expect(screen.getByRole('row', { name: /every hour 96 98% phones/ })).toBeTruthy()
    expect(screen.getByRole('row', { name: /seldom 1.5 0% others/ })).toBeTruthy()
    expect(
      screen.getByRole('row', { name: /families.pinewick.example 1,204 views|families.pinewick.example 1204 views/ }),
    ).toBeTruthy()
    expect(screen.getByText('a site that tells no name')).toBeTruthy()
    expect(screen.getByText(/Most programs show a change within the hour, nearly all by the next day/)).toBeTruthy()
  })

  test('draws the days, names those that were late, and has the same as a table', async () => {
    const { user } = open({ 'GET /editions/one/deliveries': deliveries() })
    expect((await screen.findByRole('img')).getAttribute('aria-label')).toContain('Between 214 and 240 programs a day.')
    expect(screen.getByText(/On 23 November a change went out 40 minutes late/)).toBeTruthy()
    await user.click(screen.getByText('The same as a table'))
    expect(
      within(screen.getByRole('row', { name: /23 Nov/ }))
        .getAllByRole('cell')
        .map((cell) => cell.textContent),
    ).toEqual(['240', '96', '900', '50', '61'])
  })

  test('asks for the term where one is wanted', async () => {
    const { asked, user } = open({ 'GET /editions/one/deliveries': deliveries() })
    await user.click(await screen.findByRole('button', { name: 'This term' }))
    expect(screen.getByRole('button', { name: 'This term' }).getAttribute('aria-pressed')).toBe('true')
    expect(sent(asked, 'GET /editions/one/deliveries?span=term')).toHaveLength(1)
  })

  test('of one that nobody fetched yet there is nothing to draw', async () => {
    const quiet = { ...reach, state: 'nobody', since: 0, usual: 0, most: null, last: null }
    const days = [{ day: '2026-11-24', programs: 0, withNewest: 0, times: 0, readers: 0, views: 0, lateMinutes: 0 }]
    open({
      'GET /editions/one/deliveries': deliveries({
        reach: quiet,
        rhythms: [],
        kinds: [],
        days,
        sites: [],
        halfWithinMinutes: null,
        lastFetchAt: null,
        termFrom: null,
      }),
    })
    expect(await screen.findByText(/No program has fetched it yet/)).toBeTruthy()
    expect(screen.queryByRole('img')).toBeNull()
    expect(screen.queryByRole('button', { name: 'This term' })).toBeNull()
  })

  test('who may not compose it is told so', async () => {
    open({ 'GET /editions/one/deliveries': refusal(403, 'Only editors of its calendars compose it.') })
    expect(await screen.findByText(/Only editors of its calendars/)).toBeTruthy()
  })
})

test('a calendar shows whether those who usually fetch it have the last change, and says so in a sentence', async () => {
  answer({ 'GET /reach': { editions: [], calendars: [{ ...reach, id: port.id }] } })
  show(
    '/',
    <SignedIn>
      <ReachOfCalendar id={port.id} />
    </SignedIn>,
  )
  const sign = await screen.findByText('212 of 240 have it')
  expect(sign.getAttribute('title')).toMatch(/212 programs fetched it; on a usual day 240 do, nearly all of them by the next day/)
})

test('what was rendered again is said to be the same, or what differed', async () => {
  const answers = [
    { checked: 3, differed: [] },
    {
      checked: 3,
      differed: [
        { audience: 'everyone', month: null, titles: ['Sail thief', 'Sail repair'] },
        { audience: 'everyone', month: '2026-12', titles: [] },
      ],
    },
  ]
  const { user } = open({ 'GET /editions/one/deliveries': deliveries(), 'POST /editions/one/render': () => answers.shift() })
  await user.click(await screen.findByRole('button', { name: 'Render again' }))
  expect(await screen.findByText('3 parts were made again, and nothing differed.')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Render again' }))
  expect(await screen.findByText('The feed differed: Sail thief and Sail repair. It goes out anew.')).toBeTruthy()
  expect(screen.getByText('The page of 2026-12 differed. It goes out anew.')).toBeTruthy()
})
