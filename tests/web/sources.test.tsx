// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import { ChangesProvider } from '../../src/web/desk/changes/Changes'
import { SourcePage } from '../../src/web/desk/sources/SourcePage'
import { moved, noRules, wordsOf } from '../../src/web/desk/sources/rules'
import type { FollowedSource, SourceEntry, SourcePreview } from '../../src/web/desk/types'
import { answer, refusal, sent, show, SignedIn } from './deskWorld'
import { moment } from './moment'

const source: FollowedSource = {
  id: 's',
  name: 'Due dates',
  shown: 'https://learning.example/…/due.ics',
  hasSecrets: false,
  follower: 'Ada Brook',
  everyMinutes: 120,
  version: 4,
  isBusy: false,
  rules: {
    ...noRules,
    rules: [
      { by: 'titleBegins', words: ['7B'], landing: { to: 'calendar', calendarId: 'pw', as: 'deadline' }, withoutWord: true },
    ],
  },
  health: 'right',
  rightAt: moment,
  changedAt: moment,
  failedSince: null,
  failures: 0,
  problem: '',
  dueAt: moment,
  bytes: 12_000,
  held: null,
  ownCalendar: null,
  days: [
    { day: '2026-11-22', changed: 0, same: 0, failed: 2, held: 0 },
    { day: '2026-11-23', changed: 1, same: 3, failed: 0, held: 0 },
  ],
  fetches: [],
}

const entry = (uid: string, came: string, part: Partial<SourceEntry> = {}): SourceEntry => ({
  uid,
  came,
  words: 'Friday',
  state: 'taken',
  title: came,
  calendarId: 'pw',
  isDeadline: false,
  isCancelled: false,
  rule: 0,
  isByHand: false,
  alsoOf: null,
  eventId: null,
  remarks: [],
  ...part,
})

const preview: SourcePreview = {
  rules: [
    { count: 14, next: 'Chart exercise' },
    { count: 1, next: '' },
  ],
  entries: [
    entry('k', 'Field kit check', { state: 'asks', calendarId: null, rule: null }),
    entry('a', '7B – Log', { title: 'Log', isDeadline: true }),
    entry('h', 'Hidden', { state: 'hidden' }),
  ],
  total: 3,
  taken: 1,
  leftOut: 0,
  asking: 1,
  seen: { members: 14, link: 14, everyone: 0 },
  made: 2,
  changed: 1,
  removed: 0,
}

function open(part: Partial<FollowedSource> = {}, own: Record<string, unknown> = {}) {
  const asked = answer({
    'GET /sources/s': { ...source, ...part },
    'POST /sources/s/preview': preview,
    'PUT /sources/s': null,
    'PUT /sources/s/entries': null,
    'PUT /sources/s/held': null,
    ...own,
  })
  const shown = show(
    '/intake/sources/:id',
    <SignedIn>
      <ChangesProvider>
        <SourcePage />
      </ChangesProvider>
    </SignedIn>,
    '/intake/sources/s',
  )
  return { asked, ...shown }
}

describe('a followed source', () => {
  test('words are what stands between commas, and rules change places', () => {
    expect(wordsOf(' 7C, 7D ,, ')).toEqual(['7C', '7D'])
    expect(moved(['a', 'b', 'c'], 2, 0)).toEqual(['c', 'a', 'b'])
  })

  test('a rule that is added is saved with the others, and what saving would do is said before', async () => {
    const { asked, user } = open()
    await user.click(await screen.findByRole('button', { name: 'Another rule' }))
    const rule = within(screen.getByRole('group', { name: 'rule 2' }))
    await user.type(rule.getByLabelText('Words, with commas between'), '7C, 7D')
    await user.selectOptions(rule.getByLabelText('Goes to'), 'sw')
    expect(await screen.findByText('Saving the rules would make 2 new, 1 changed, none gone.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Save the rules' }))
    await vi.waitFor(() => expect(sent(asked, 'PUT /sources/s')).toHaveLength(1))
    expect(sent(asked, 'PUT /sources/s')[0]).toMatchObject({
      version: 4,
      rules: { rules: [{ words: ['7B'] }, { words: ['7C', '7D'], landing: { to: 'calendar', calendarId: 'sw' } }] },
    })
  })

  test('what is refused is said at its rule, and nothing typed is lost', async () => {
    const { user } = open({}, { 'PUT /sources/s': refusal(400, 'No.', { 'rules.1.words': ['A rule needs a word.'] }) })
    await user.click(await screen.findByRole('button', { name: 'Another rule' }))
    await user.click(screen.getByRole('button', { name: 'Save the rules' }))
    const rule = within(screen.getByRole('group', { name: 'rule 2' }))
    expect(await rule.findByText('A rule needs a word.')).toBeTruthy()
    expect(screen.getByRole('group', { name: 'rule 1' })).toBeTruthy()
  })

  test('what asks is answered by a button for each calendar of the rules', async () => {
    const { asked, user } = open()
    await user.click(await screen.findByRole('button', { name: 'Field kit check on Port Watch' }))
    await vi.waitFor(() =>
      expect(sent(asked, 'PUT /sources/s/entries')).toEqual([
        { uid: 'k', landing: { to: 'calendar', calendarId: 'pw', as: 'asItCame' } },
      ]),
    )
    expect(screen.getByText(/Everyone else sees nothing\./)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'show it again' })).toBeTruthy()
  })

  test('why and since when it fails, and what is held back, stands above all', async () => {
    const { asked, user } = open({
      health: 'held',
      problem: 'learning.example did not answer.',
      failures: 3,
      failedSince: moment,
      held: { because: 'shrunk', at: moment, before: 50, now: 13, gone: 29 },
    })
    expect((await screen.findByRole('alert')).textContent).toContain('it held 13 entries instead of 50')
    expect(screen.getByText(/Failed 3 times\. learning\.example did not answer\./)).toBeTruthy()
    expect(screen.getByText(/22 November: failed 2 times/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Keep what stands' }))
    await vi.waitFor(() => expect(sent(asked, 'PUT /sources/s/held')).toEqual([{ isTaken: false }]))
  })
})
