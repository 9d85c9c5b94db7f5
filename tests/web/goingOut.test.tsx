// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import type { ReactNode } from 'react'
import { describe, expect, test } from 'vitest'
import type { Failing } from '../../src/web/desk/types'
import { ChangesProvider } from '../../src/web/desk/changes/Changes'
import { DeliveryLine } from '../../src/web/desk/Delivery'
import { ListsPage } from '../../src/web/desk/lists/ListsPage'
import { SeveralPage } from '../../src/web/desk/several/SeveralPage'
import { FailingNotice } from '../../src/web/desk/work/FailingNotice'
import { WorkPage } from '../../src/web/desk/work/WorkPage'
import { answer, port, refusal, sent, show as showAnything, SignedIn } from './deskWorld'

const show = (path: string, element: ReactNode) => showAnything(path, <SignedIn>{element}</SignedIn>)

const failing = (part: Partial<Failing>): Failing => ({
  kind: 'render',
  key: 'juniors',
  subject: 'Juniors for families',
  editionId: 'juniors',
  since: '2026-11-23T11:05:00Z',
  reason: 'disk',
  error: '53100: could not extend file',
  tries: 3,
  isSetAside: false,
  nextTryAt: '2026-11-23T12:05:00Z',
  ...part,
})

describe('what has not gone out', () => {
  const two = [
    failing({}),
    failing({
      kind: 'mail',
      key: 'm',
      subject: 'cy@pinewick.example',
      editionId: null,
      since: '2026-11-21T15:00:00Z',
      reason: 'mailServer',
      isSetAside: true,
      nextTryAt: null,
      tries: 8,
    }),
  ]

  test('says what, since when, why, and when it is tried again', async () => {
    answer({ 'GET /work': two })
    show('/work', <WorkPage />)
    const [, edition, mail] = await screen.findAllByRole('row')
    expect(edition?.textContent).toContain('Going out: Juniors for families')
    expect(edition?.textContent).toContain('07:05')
    expect(edition?.textContent).toContain('no room left on the disk')
    expect(edition?.textContent).toContain('08:05')
    expect(within(edition!).getByRole('link', { name: 'Juniors for families' }).getAttribute('href')).toBe('/editions/juniors')
    expect(mail?.textContent).toContain('A mail to cy@pinewick.example')
    expect(mail?.textContent).toContain('21 Nov')
    expect(mail?.textContent).toContain('set aside')
  })

  test('is tried again when somebody asks, and says so', async () => {
    const asked = answer({ 'GET /work': two, 'POST /work/try-again': null })
    const { user } = show('/work', <WorkPage />)
    await user.click(await screen.findByRole('button', { name: 'Try again: Going out Juniors for families' }))
    expect(sent(asked, 'POST /work/try-again')).toEqual([{ kind: 'render', key: 'juniors' }])
    expect(await screen.findByText('Going out: tried again now.')).toBeDefined()
  })

  test('says when there is nothing, and on every other screen when there is something', async () => {
    answer({ 'GET /work': [] })
    show('/work', <WorkPage />)
    expect(await screen.findByText('Everything has gone out.')).toBeDefined()
  })

  test('leads to its page from every screen', async () => {
    answer({ 'GET /work': two })
    show('/plan', <FailingNotice />)
    expect((await screen.findByText(/2 things have/)).textContent).toContain('not gone out since 07:05.')
    expect(screen.getByRole('link', { name: 'See what, and why' }).getAttribute('href')).toBe('/work')
  })

  test('stands in the lane, with its reason', async () => {
    answer({})
    show(
      '/plan',
      <DeliveryLine
        delivery={{
          ...port.delivery,
          state: 'failing',
          failure: { since: '2026-11-23T11:05:00Z', reason: 'database', isSetAside: false },
        }}
      />,
    )
    expect(await screen.findByText(/Going out failed since 07:05: the database did not answer/)).toBeDefined()
  })
})

describe('lists', () => {
  const lists = {
    categories: [
      { id: 'exams', name: 'Assessment', colour: 'madder', events: 3 },
      { id: 'tests', name: 'Tests', colour: 'fjord', events: 1 },
    ],
    places: [{ id: 'hall', name: 'Hall', latitude: 43.94, longitude: -60.03, events: 0 }],
    retiredCategories: [{ id: 'old', name: 'Outings', colour: 'kelp', events: 2 }],
    retiredPlaces: [],
    mayEdit: true,
  }
  const page = (
    <ChangesProvider>
      <ListsPage />
    </ChangesProvider>
  )

  test('taking a name off says on how many events it stays, and can be undone', async () => {
    const asked = answer({
      'GET /lists': lists,
      'GET /colours': [],
      'POST /lists/categories/exams/retire': null,
      'POST /lists/categories/exams/offer': null,
    })
    const { user } = show('/lists', page)
    await user.click(await screen.findByRole('button', { name: 'Take off Assessment' }))
    expect(await screen.findByText(/“Assessment” is off the list\. It stays on the 3 events that have it\./)).toBeDefined()
    await user.click(screen.getByRole('button', { name: /Undo/ }))
    expect(sent(asked, 'POST /lists/categories/exams/offer')).toHaveLength(1)
  })

  test('what is not offered any more is there, and is offered again', async () => {
    const asked = answer({ 'GET /lists': lists, 'GET /colours': [], 'POST /lists/categories/old/offer': null })
    const { user } = show('/lists', page)
    await user.click(await screen.findByText('One that is not offered any more'))
    expect(screen.getByText('2 events')).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Offer again Outings' }))
    expect(sent(asked, 'POST /lists/categories/old/offer')).toHaveLength(1)
  })

  test('one of two: its events get the other, and undo gives them back', async () => {
    const asked = answer({
      'GET /lists': lists,
      'GET /colours': [],
      'GET /lists/categories/exams/merge?into=tests': { events: 3, removed: 0, returned: 0, newlySees: [], seesLess: [] },
      'POST /lists/categories/exams/merge': { actId: 'act', events: 3 },
    })
    const { user } = show('/lists', page)
    await user.click(await screen.findByRole('button', { name: 'Change Assessment' }))
    await user.selectOptions(screen.getByLabelText('Make it one with'), 'tests')
    expect(await screen.findByText('3 events get Tests.')).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Give its 3 events that one' }))
    expect(sent(asked, 'POST /lists/categories/exams/merge')).toEqual([{ into: 'tests' }])
    expect(await screen.findByText('“Assessment” is “Tests” now, on 3 events.')).toBeDefined()
  })

  test('an undo that is refused is said', async () => {
    answer({
      'GET /lists': lists,
      'GET /colours': [],
      'GET /lists/categories/exams/merge?into=tests': { events: 3, removed: 0, returned: 0, newlySees: [], seesLess: [] },
      'POST /lists/categories/exams/merge': { actId: 'act', events: 3 },
      'GET /acts/act/undo': refusal(409, 'Somebody else saved this meanwhile.'),
    })
    const { user } = show('/lists', page)
    await user.click(await screen.findByRole('button', { name: 'Change Assessment' }))
    await user.selectOptions(screen.getByLabelText('Make it one with'), 'tests')
    await screen.findByText('3 events get Tests.')
    await user.click(screen.getByRole('button', { name: 'Give its 3 events that one' }))
    await user.click(await screen.findByRole('button', { name: /^Undo/ }))
    expect(await screen.findByText('Somebody else saved this meanwhile.')).toBeDefined()
  })
})

describe('several at once', () => {
  const check = { rows: [], whoSees: ['Everyone: none'] }

  const paste = async (lines: number) => {
    const asked = answer({ 'POST /events/several/check': check, 'POST /events/several': { actId: 'act', events: [] } })
    const { user } = show(
      '/events/several',
      <ChangesProvider>
        <SeveralPage />
      </ChangesProvider>,
    )
    await user.click(await screen.findByLabelText('Date, line 1'))
    await user.paste(Array.from({ length: lines }, (_, line) => `3 Dec 2026\t9\t10\tKnots ${line + 1}\tLoft\tPW`).join('\n'))
    return { asked, user }
  }

  test('who will see them stands there before they are saved', async () => {
    await paste(2)
    await screen.findByText('Everyone: none')
  })

  test('250 pasted lines are 250 lines', async () => {
    const { asked, user } = await paste(250)
    await user.click(screen.getByRole('button', { name: /^after/ }))
    expect(screen.getByLabelText<HTMLInputElement>('Title, line 250').value).toBe('Knots 250')
    await user.click(screen.getByRole('button', { name: 'Save 250 events' }))
    expect(
      (sent(asked, 'POST /events/several')[0] as { rows: unknown[] }).rows.filter((row) => (row as { title: string }).title),
    ).toHaveLength(250)
  })

  test('what is too much for one save is said and stays in the table', async () => {
    const { user } = await paste(5012)
    expect(screen.getByText(/One save takes 5,?000 lines; the 12 beyond stay in the table\./)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'last' }))
    expect(screen.getByLabelText<HTMLInputElement>('Title, line 5,012').value).toBe('Knots 5012')
  })
})
