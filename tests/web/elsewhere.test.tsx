// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import { AlsoInto } from '../../src/web/desk/elsewhere/AlsoInto'
import { TargetPage } from '../../src/web/desk/elsewhere/TargetPage'
import type { Target, TargetOpen } from '../../src/web/desk/types'
import { answer, sent, show, SignedIn } from './deskWorld'

const changed: TargetOpen = {
  name: 'a.ics',
  title: 'Regatta',
  question: 'changed',
  ours: ['Regatta', 'Friday 4 December 2026, 10:00 to 12:00'],
  theirs: ['Regatta (moved to the pier)', 'Friday 4 December 2026, 10:00 to 12:00'],
  askedAt: '2026-11-23T12:00:00Z',
  answer: 'none',
  problem: '',
}

const target: Target = {
  id: 't',
  name: 'Club',
  shown: 'https://club.example/…/members',
  editionId: 'e',
  editionName: 'Rowing club',
  calendarId: 'row',
  setUpBy: 'Ada Brook',
  health: 'asks',
  audience: 'link',
  isAudienceFixed: false,
  takes: 'chosen',
  from: null,
  until: null,
  version: 3,
  rightAt: '2026-11-23T12:00:00Z',
  failedSince: null,
  failures: 0,
  problem: '',
  there: 4,
  asking: 1,
  left: 1,
  refused: 1,
  chosen: 6,
  isBusy: false,
  done: null,
  total: null,
  open: [
    changed,
    { ...changed, name: 'b.ics', title: 'Coffee', question: 'gone', theirs: [], answer: 'theirs' },
    { ...changed, name: 'c.ics', title: 'Ball', question: null, problem: 'There is no room left there (507).' },
  ],
}

function open(part: Partial<Target> = {}) {
  const asked = answer({
    'GET /targets/t': { ...target, ...part },
    'PUT /targets/t': null,
    'PUT /targets/t/answers': null,
    'POST /targets/t/push': null,
    'POST /targets/t/choose': { count: 2 },
  })
  return {
    asked,
    ...show(
      '/elsewhere/:id',
      <SignedIn>
        <TargetPage />
      </SignedIn>,
      '/elsewhere/t',
    ),
  }
}

describe('a calendar elsewhere', () => {
  test('what somebody changed there stands beside what it is here, and is answered', async () => {
    const { asked, user } = open()
    const regatta = within((await screen.findByRole('heading', { name: 'Regatta' })).closest('li')!)
    expect(regatta.getByText('Regatta (moved to the pier)').className).toBe('is-another')
    expect(regatta.getAllByText('Friday 4 December 2026, 10:00 to 12:00')[0]?.className).toBe('')
    await user.click(regatta.getByRole('button', { name: 'Write Regatta as it is here' }))
    await waitFor(() => expect(sent(asked, 'PUT /targets/t/answers')).toEqual([{ name: 'a.ics', answer: 'ours' }]))
  })

  test('what was left as it is there can be had back, and what is not taken says why', async () => {
    const { asked, user } = open()
    const coffee = within((await screen.findByRole('heading', { name: 'Coffee' })).closest('li')!)
    await user.click(coffee.getByRole('button', { name: 'Write it as it is here after all' }))
    await waitFor(() => expect(sent(asked, 'PUT /targets/t/answers')).toEqual([{ name: 'b.ics', answer: 'ours' }]))
    expect(screen.getByText('There is no room left there (507).')).toBeTruthy()
  })

  test('it says whether it stands, how far it is, and since when it fails', async () => {
    open({
      health: 'failing',
      failedSince: '2026-11-23T12:00:00Z',
      problem: 'The server there answers with error 503.',
      failures: 3,
      open: [],
    })
    expect(await screen.findByText(/it failed 3 times/)).toBeTruthy()
    expect(screen.getByText('Nobody changed there what comes from here.')).toBeTruthy()
  })

  test('its settings are saved by the version that was seen, and its password stays where none is typed', async () => {
    const { asked, user } = open()
    await user.click(await screen.findByText('Name, what is written, password'))
    await user.click(screen.getByLabelText('All of it'))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() =>
      expect(sent(asked, 'PUT /targets/t')).toEqual([
        { version: 3, name: 'Club', audience: 'link', takes: 'all', from: null, until: null, access: null },
      ]),
    )
  })

  test('an event is written into those that are ticked; what takes all is ticked already', async () => {
    const chosen = vi.fn()
    const { user } = show(
      '/',
      <AlsoInto
        offered={[
          { id: 'a', name: 'Club', shown: 'https://club.example/…/members', takesAll: false, isChosen: false },
          { id: 'b', name: 'Town', shown: 'https://town.example/…/all', takesAll: true, isChosen: false },
        ]}
        value={[]}
        onChange={chosen}
      />,
    )
    expect(screen.getByLabelText<HTMLInputElement>(/Town/).disabled).toBe(true)
    await user.click(screen.getByLabelText(/Club/))
    expect(chosen).toHaveBeenCalledWith(['a'])
  })
})
