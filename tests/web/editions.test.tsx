// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { EditionPage } from '../../src/web/desk/editions/EditionPage'
import { EditionsPage } from '../../src/web/desk/editions/EditionsPage'
import { ReadPage } from '../../src/web/desk/editions/ReadPage'
import { answer, calendar, choose, draftSent, edition, line, refusal, sent, show, SignedIn } from './deskWorld'

describe('the editions', () => {
  test('give a member an address of their own, in every form', async () => {
    answer({
      'GET /editions': [line('Staff week', { id: 'staff', audience: 'members', mayRead: true })],
      'GET /editions/staff/link': { feed: 'https://harbour.example/s/secret.ics', page: null },
    })
    show(
      '/editions/:id/read',
      <SignedIn>
        <ReadPage />
      </SignedIn>,
      '/editions/staff/read',
    )
    await screen.findByText('Other forms')
    const offered = screen.getAllByRole<HTMLInputElement>('textbox', { hidden: true }).map((field) => field.value)
    expect(offered).toEqual(
      ['.ics', '.ifb', '.csv', '/v1.json', '.jcal'].map((form) => `https://harbour.example/s/secret${form}`),
    )
  })

  test('say from which calendars, for whom, whether they are out and who fetched them', async () => {
    answer({
      'GET /editions': [
        line('Juniors for families', { id: 'juniors', mayRead: true }),
        line('Open harbour week', { isInTheMaking: true, findings: { keepsFromReaders: 1, toLookAt: 5, forInformation: 2 } }),
        line('Staff week', { audience: 'members', view: 'week', mayEdit: false, mayRead: true }),
        line('Port Watch', {
          isStandard: true,
          calendarId: 'pw',
          freshness: { state: 'closed', changedAt: null, failure: null },
        }),
      ],
      'GET /reach': {
        editions: [
          { id: 'juniors', state: 'some', changedAt: '2026-11-24T10:04:00Z', since: 212, usual: 240, most: 'hour', last: 'day' },
        ],
        calendars: [],
      },
    })
    show(
      '/editions',
      <SignedIn>
        <EditionsPage />
      </SignedIn>,
    )
    const row = (name: RegExp) => within(screen.getByRole('row', { name }))
    expect(await screen.findByText('212 of 240 have it')).toBeTruthy()
    expect(row(/harbour week/).queryByRole('link', { name: /who has/ })).toBeNull()
    expect(row(/Juniors/).getByRole('link', { name: 'Compose Juniors for families' })).toBeTruthy()
    expect(row(/harbour week/).getByText('in the making')).toBeTruthy()
    expect(row(/harbour week/).getByRole('link', { name: /Proof of Open harbour week/ }).textContent).toMatch(/1 .*5 /)
    expect(row(/Juniors/).getByRole('link', { name: /nothing wrong/ })).toBeTruthy()
    expect(row(/Staff week/).getByText('members')).toBeTruthy()
    expect(row(/Staff week/).queryByRole('link', { name: /Compose/ })).toBeNull()
    expect(row(/Staff week/).getByRole('link', { name: 'Read Staff week' })).toBeTruthy()
    expect(row(/Port Watch/).getByText('nothing goes out')).toBeTruthy()
    expect(
      row(/Port Watch/)
        .getByRole('link', { name: 'Publish Port Watch' })
        .getAttribute('href'),
    ).toBe('/calendars/pw/publishing')
  })

  test('without any say what one is good for, and to whoever may make none no more', async () => {
    answer({ 'GET /editions': [] })
    show('/editions', <EditionsPage />)
    expect(await screen.findByText(/begin with “New edition”/)).toBeTruthy()
  })

  test('whoever publishes no calendar is not offered to make one', async () => {
    answer({ 'GET /editions': [], 'GET /calendars': [calendar('PW', 'Port Watch', { mayPublish: false })] })
    show('/editions', <EditionsPage />)
    expect(await screen.findByText(/an editor can make one/)).toBeTruthy()
    expect(screen.queryByRole('link', { name: 'New edition' })).toBeNull()
  })

  test('an answer that does not come is said', async () => {
    answer({ 'GET /editions': refusal(503, 'The database does not answer. Try again in a moment.') })
    show('/editions', <EditionsPage />)
    expect((await screen.findByRole('alert')).textContent).toContain('The database does not answer')
  })
})

describe('a new edition', () => {
  const begin = (own: Record<string, unknown> = {}) => {
    const asked = answer(own)
    return { asked, ...show('/editions/new', <EditionPage />) }
  }

  test('asks for nothing before it has a calendar, and says what to do', async () => {
    const { asked } = begin()
    expect(await screen.findByText(/Choose a calendar, and the page stands here/)).toBeTruthy()
    await screen.findByRole('checkbox', { name: /Port Watch/ })
    expect(sent(asked, 'POST /editions/preview')).toEqual([])
  })

  test('takes a whole group, is looked at while it is made, and is made', async () => {
    const { asked, user } = begin({ 'POST /editions': edition() })
    await user.click(await screen.findByRole('button', { name: 'Classes' }))
    expect(await screen.findByTitle(/The new edition as readers get it/)).toBeTruthy()
    expect(screen.getByText(/41 entries within a year, 2 look-alikes merged/)).toBeTruthy()
    await user.type(screen.getByLabelText('Name of the edition'), 'Juniors for families')
    await user.click(screen.getByRole('button', { name: 'Make the edition' }))
    expect(await screen.findByText(/is made\. Nobody has it yet/)).toBeTruthy()
    const made = draftSent(sent(asked, 'POST /editions')[0])
    expect(made.name).toBe('Juniors for families')
    expect(made.sources.map((source) => source.calendarId)).toEqual(['pw', 'sw'])
    expect(await screen.findByText('another screen')).toBeTruthy()
  })

  test('begins with a common case and keeps the name and the calendars', async () => {
    const { user } = begin()
    await user.type(await screen.findByLabelText('Name of the edition'), 'Sidebar')
    await user.click(await screen.findByRole('checkbox', { name: /Port Watch/ }))
    await user.click(screen.getByRole('button', { name: 'Next five in a sidebar' }))
    expect(screen.getByLabelText<HTMLInputElement>('At most so many entries').value).toBe('5')
    expect(choose('From when').value).toBe('now')
    expect(choose('Opens as').value).toBe('list')
    expect(screen.getByLabelText<HTMLInputElement>('Name of the edition').value).toBe('Sidebar')
    expect(screen.getByRole('button', { name: /everything of Port Watch/ })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'For the staff' }))
    expect(choose('For whom').value).toBe('members')
    expect(screen.getByLabelText<HTMLInputElement>(/drafts, and what waits/).checked).toBe(true)
    await user.selectOptions(choose('For whom'), 'everyone')
    expect(screen.queryByLabelText(/drafts, and what waits/)).toBeNull()
  })

  test('what is refused is said at its field, and nothing that was typed is lost', async () => {
    const { user } = begin({
      'POST /editions': refusal(422, 'The name is missing.', { name: ['The name is missing. Give one.'] }),
    })
    await user.click(await screen.findByRole('checkbox', { name: /Port Watch/ }))
    await user.type(screen.getByLabelText(/Text below it/), 'Questions to the office')
    await user.click(screen.getByRole('button', { name: 'Make the edition' }))
    expect(await screen.findByText('The name is missing. Give one.')).toBeTruthy()
    expect(screen.getByLabelText('Name of the edition').getAttribute('aria-invalid')).toBe('true')
    expect(screen.getByLabelText<HTMLTextAreaElement>(/Text below it/).value).toBe('Questions to the office')
    await user.type(screen.getByLabelText('Name of the edition'), 'J')
    expect(screen.queryByText('The name is missing. Give one.')).toBeNull()
  })
})
