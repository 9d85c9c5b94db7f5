// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { useRefresh } from '../../src/web/desk/refresh'
import { YearPlanPage } from '../../src/web/desk/year/YearPlanPage'
import { answer, readAs, sent, session, show, SignedIn } from './deskWorld'

const year = {
  id: 'this',
  name: '2026/27',
  first: '2026-09-01',
  last: '2027-08-31',
  terms: [],
  breaks: [],
  cycle: null,
  cycleDays: [],
  version: 4,
}

const nothingFollows = { series: 0, dates: 0, events: [], editions: [] }

/** The screen, and news of others when the test says so. */
function Told() {
  const { everything } = useRefresh()
  return (
    <>
      <button type="button" onClick={() => void everything()}>
        News
      </button>
      <YearPlanPage />
    </>
  )
}

test('a day is read for the year that is planned, and one that could be two is chosen', async () => {
  readAs('22 feb', '2027-02-22')
  readAs('next Friday', '2027-01-08', '2027-01-15')
  const spring = { name: 'Spring', first: '2027-01-05', last: '2027-04-01' }
  const asked = answer({
    'GET /session': session,
    'GET /year-plans': { plans: [{ ...year, terms: [spring] }], mayEdit: true },
    'POST /year-plans/preview': nothingFollows,
  })
  const { user } = show(
    '/year',
    <SignedIn>
      <Told />
    </SignedIn>,
  )
  const first = await screen.findByLabelText<HTMLInputElement>('First day of Spring')
  await user.clear(first)
  await user.type(first, '22 feb')
  await user.tab()
  await waitFor(() => expect(first.value).toMatch(/22 Feb 2027/))
  // Of the year's middle, so that each of its days is nearer than the same day of another year.
  expect((sent(asked, 'POST /typed/day').at(-1) as { near: string }).near).toMatch(/^2027-0[123]/)
  await user.clear(first)
  await user.type(first, 'next Friday')
  await user.click(await screen.findByRole('button', { name: /15 Jan 2027/ }))
  expect(first.value).toMatch(/15 Jan 2027/)
})

test('what readers would get is looked through before the year is saved', async () => {
  const same = {
    entries: 8,
    becomes: 8,
    leave: [],
    moreLeave: 0,
    arrive: [],
    moreArrive: 0,
    gone: [],
    come: [],
    readers: 'everyone',
  }
  const asked = answer({
    'GET /session': session,
    'GET /year-plans': { plans: [year], mayEdit: true },
    'POST /year-plans/preview': {
      ...nothingFollows,
      editions: [
        { id: 'almanac', name: 'Almanac' },
        { id: 'watch', name: 'Port Watch' },
        { id: 'crew', name: 'Senior Crew' },
      ],
    },
    'POST /year-plans/preview/editions/almanac': { ...same, becomes: 7, leave: ['Boat lab, 1 December 2026'], moreLeave: 3 },
    'POST /year-plans/preview/editions/watch': { ...same, come: ['“Knots” takes place in Whale day'] },
    'POST /year-plans/preview/editions/crew': same,
  })
  const { user } = show(
    '/year',
    <SignedIn>
      <Told />
    </SignedIn>,
  )
  await user.type(await screen.findByLabelText('Year', { selector: 'input' }), ' b')
  await user.click(await screen.findByRole('button', { name: 'Look through the 3 editions that go out' }))
  expect(await screen.findByText('1 edition stays as it is.')).toBeTruthy()
  expect(screen.getByText('Goes: Boat lab, 1 December 2026 and 3 more.')).toBeTruthy()
  // What is new and wrong comes first.
  expect(
    within(screen.getByRole('region', { name: 'What readers would get' }))
      .getAllByRole('link')
      .map((link) => link.textContent),
  ).toEqual(['Port Watch', 'Almanac'])
  expect(sent(asked, 'POST /year-plans/preview/editions/crew?id=this')).toEqual([expect.objectContaining({ name: '2026/27 b' })])
  // Another year is looked through anew.
  await user.type(screen.getByLabelText('Year', { selector: 'input' }), 'c')
  expect(await screen.findByRole('button', { name: 'Look through the 3 editions that go out' })).toBeTruthy()
})

test('a year is removed only after what follows from that was shown, and may be kept', async () => {
  const asked = answer({
    'GET /session': session,
    'GET /year-plans': { plans: [year], mayEdit: true },
    'GET /year-plans/this/removal': {
      ...nothingFollows,
      series: 1,
      dates: 12,
      events: [
        {
          ...{ eventId: 'lab', calendarId: 'pw', title: 'Boat lab', gone: 0, new: 12, moved: 0 },
          ...{ words: ['come in: 22 December 2026 and 11 more'], lostExceptions: [] },
        },
      ],
      editions: [{ id: 'almanac', name: 'Almanac' }],
    },
    'GET /year-plans/this/removal/editions/almanac': {
      ...{ entries: 8, becomes: 20, leave: [], moreLeave: 0, moreArrive: 11, gone: [], come: [], readers: 'everyone' },
      arrive: ['Boat lab, 22 December 2026'],
    },
    'DELETE /year-plans/this': null,
  })
  const { user } = show(
    '/year',
    <SignedIn>
      <Told />
    </SignedIn>,
  )
  await user.click(await screen.findByRole('button', { name: /Remove this year/ }))
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Keep it' }))
  expect(await screen.findByText('come in: 22 December 2026 and 11 more')).toBeTruthy()
  expect(screen.getByLabelText('Year', { selector: 'input' }).closest('fieldset')?.disabled).toBe(true)
  await user.click(screen.getByRole('button', { name: 'Look through the edition that goes out' }))
  expect(await screen.findByText(/Boat lab, 22 December 2026 and 11 more/)).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Keep it' }))
  expect(sent(asked, 'DELETE /year-plans/this?version=4')).toEqual([])
  await user.click(screen.getByRole('button', { name: /Remove this year/ }))
  await user.click(await screen.findByRole('button', { name: 'Remove it, and change 12 dates' }))
  expect(await screen.findByText(/The year plan is removed/)).toBeTruthy()
})

describe('a year that somebody else saves meanwhile', () => {
  const plans = { plans: [year], mayEdit: true }

  test('is shown as it is now where nothing was typed', async () => {
    const served = { ...plans }
    answer({ 'GET /session': session, 'GET /year-plans': () => served })
    const { user } = show(
      '/year',
      <SignedIn>
        <Told />
      </SignedIn>,
    )
    await screen.findByLabelText('Year', { selector: 'input' })
    served.plans = [{ ...year, name: 'Their year', version: 5 }]
    await user.click(screen.getByRole('button', { name: 'News' }))
    expect(await screen.findByDisplayValue('Their year')).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
  })

  test('leaves alone what was typed, and is saved over only by choice', async () => {
    const served = { ...plans }
    const saved: unknown[] = []
    answer({
      'GET /session': session,
      'GET /year-plans': () => served,
      'POST /year-plans/preview': nothingFollows,
      'PUT /year-plans/this': (body: unknown) => {
        saved.push(body)
        return { ...year, name: 'My year', version: 6 }
      },
    })
    const { user } = show(
      '/year',
      <SignedIn>
        <Told />
      </SignedIn>,
    )
    const name = await screen.findByLabelText<HTMLInputElement>('Year', { selector: 'input' })
    await user.clear(name)
    await user.type(name, 'My year')
    served.plans = [{ ...year, name: 'Their year', version: 5 }]
    await user.click(screen.getByRole('button', { name: 'News' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Somebody else saved Their year')
    expect(name.value).toBe('My year')
    const save = screen.getByRole<HTMLButtonElement>('button', { name: /^Save/ })
    expect(save.disabled).toBe(true)
    await user.click(screen.getByRole('button', { name: 'Keep mine, to be saved in its place' }))
    await user.click(save)
    expect(saved).toEqual([expect.objectContaining({ name: 'My year', version: 5 })])
  })
})
