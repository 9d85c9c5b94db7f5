// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react'
import { expect, test } from 'vitest'
import { SearchPanel } from '../../src/web/desk/search/SearchPanel'
import type { SearchFound } from '../../src/web/desk/types'
import { answer, date, SignedIn, show } from './deskWorld'

const found: SearchFound = {
  spans: [],
  coming: [date('Boat lab', { recurs: true }), date('Boat show', { alsoOn: ['sw'] })],
  over: [date('Boat race', { state: 'cancelled' })],
  hasMore: false,
  names: [
    { kind: 'place', id: 'p', name: 'Boathouse', mayEdit: false },
    { kind: 'calendar', id: 'sw', name: 'Starboard Watch', mayEdit: false },
  ],
}
const nothing: SearchFound = { spans: [], coming: [], over: [], hasMore: false, names: [] }

function open(answers: Record<string, SearchFound>) {
  const asked = answer(Object.fromEntries(Object.entries(answers).map(([text, one]) => [`GET /search?text=${text}`, one])))
  let isOpen = true
  const shown = show(
    '/plan',
    <SignedIn>
      <SearchPanel onHide={() => (isOpen = false)} />
    </SignedIn>,
  )
  return { ...shown, asked, isOpen: () => isOpen }
}

const options = () => screen.queryAllByRole('option').map((one) => one.textContent)

test('what comes next stands first, and the keyboard chooses and opens', async () => {
  const { user, router, isOpen } = open({ boat: found })
  await user.type(await screen.findByRole('combobox', { name: 'Search for' }), 'boat')
  await waitFor(() => expect(options().length).toBe(6))
  expect(screen.getAllByRole('group').map((one) => one.getAttribute('aria-label'))).toEqual([
    'Comes next',
    'Over',
    'List',
    'Calendars',
    'All events',
  ])
  expect(options()[0]).toContain('Boat lab')
  expect(options()[0]).toContain('recurs')
  const marked = () => screen.getByRole('option', { selected: true }).textContent
  expect(marked()).toContain('Boat lab')
  await user.keyboard('{ArrowDown}')
  expect(marked()).toContain('Boat show')
  await user.keyboard('{ArrowUp}{ArrowUp}')
  expect(marked()).toContain('Boathouse')
  await user.keyboard('{Enter}')
  expect(isOpen()).toBe(false)
  expect(router.state.location.pathname + router.state.location.search).toBe('/plan?view=list&span=year&place=Boathouse')
})

test('a day is gone to, and all that was found is a list of its own', async () => {
  const { user, router } = open({
    '12%20march': { ...nothing, spans: [{ kind: 'day', first: '2027-03-12' }] },
    boat: found,
  })
  const field = await screen.findByRole('combobox', { name: 'Search for' })
  await user.type(field, '12 march')
  await user.click(await screen.findByRole('option', { name: /Friday/ }))
  expect(router.state.location.search).toBe('?view=day&day=2027-03-12')
  await user.clear(field)
  await user.type(field, 'boat')
  await user.click(await screen.findByRole('option', { name: /All of them in the list/ }))
  expect(router.state.location.search).toBe('?view=list&span=year&words=boat')
})

test('Enter waits for what was typed last, and opens nothing that was found before', async () => {
  const { user, router } = open({
    boat: found,
    boatx: nothing,
    'week%2049': { ...nothing, spans: [{ kind: 'week', first: '2026-11-30' }] },
  })
  const field = await screen.findByRole('combobox', { name: 'Search for' })
  await user.type(field, 'boat')
  await waitFor(() => expect(options().length).toBe(6))
  await user.type(field, 'x{Enter}')
  expect(await screen.findByText('Nothing that you may see is called “boatx” or says it.')).toBeTruthy()
  expect(router.state.location.search).toBe('')
  await user.clear(field)
  await user.type(field, 'week 49{Enter}')
  await waitFor(() => expect(router.state.location.search).toBe('?view=lanes&day=2026-11-30'))
})

test('one letter is not looked for', async () => {
  const { user, asked } = open({})
  await user.type(await screen.findByRole('combobox', { name: 'Search for' }), 'b')
  expect(await screen.findByText(/Events of all times by their words/)).toBeTruthy()
  expect(asked.some((one) => one.what.startsWith('GET /search'))).toBe(false)
})
