// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import { CalendarsPage } from '../../src/web/desk/calendars/CalendarsPage'
import { answer, port, refusal, sent, show } from './deskWorld'

const choose = async (own: Record<string, unknown>, what: string) => {
  const asked = answer(own)
  const { user } = show('/calendars', <CalendarsPage />)
  await user.click((await screen.findAllByRole('button', { name: /^More/ }))[0]!)
  await user.click((await screen.findAllByText(what))[0]!)
  return { asked, user, dialog: within(await screen.findByRole('dialog')) }
}

const removal = { events: 6, elsewhere: 2, empties: [{ what: 'feed', programs: 3 }], editions: [] as unknown[] }

describe('the life of a calendar', () => {
  test('removing says what goes with it and which editions lose it, and is undone', async () => {
    const editions = [
      { id: 'a', name: 'Juniors for families', becomesEmpty: false, programs: 14 },
      { id: 'b', name: 'Port Watch alone', becomesEmpty: true, programs: 0 },
    ]
    const { asked, user, dialog } = await choose(
      { 'GET /calendars/pw/removal': { ...removal, editions }, 'DELETE /calendars/pw': null, 'POST /calendars/pw/restore': null },
      'Remove …',
    )
    expect(await dialog.findByText('6 events go with it.')).toBeTruthy()
    expect(dialog.getByText(/2 of these are shown on other calendars too/)).toBeTruthy()
    expect(dialog.getAllByRole('listitem').map((line) => line.textContent)).toEqual(
      expect.arrayContaining([
        'Its feed will be gone: 3 programs fetched it on the busiest of the last 7 days.',
        'the edition Juniors for families will be without it: 14 programs fetched it on the busiest of the last 7 days',
        'the edition Port Watch alone will be empty: nobody fetched it in the last 7 days',
      ]),
    )
    await user.click(dialog.getByRole('button', { name: 'Remove it' }))
    expect(await screen.findByText(/Port Watch is removed/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /^Undo/ }))
    await vi.waitFor(() => expect(sent(asked, 'POST /calendars/pw/restore')).toHaveLength(1))
    expect(await screen.findByText('Port Watch is back.')).toBeTruthy()
  })

  test('what is refused is said in the dialog, and nothing is gone', async () => {
    const { user, dialog } = await choose(
      {
        'GET /calendars/pw/removal': { ...removal, events: 0, elsewhere: 0, empties: [] },
        'DELETE /calendars/pw': refusal(503, 'The database does not answer. Try again in a moment.'),
      },
      'Remove …',
    )
    expect(await dialog.findByText('It holds no events.')).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Remove it' }))
    expect(await dialog.findByText(/The database does not answer/)).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Leave it' }))
    expect(screen.getAllByText(port.name).length).toBeGreaterThan(0)
  })

  test('merging names who will see more and less before it is done', async () => {
    const { asked, user, dialog } = await choose(
      {
        'GET /calendars/pw/merge?into=stf': { moves: 6, places: 1, newlySees: [], seesLess: ['Everyone: complete to nothing'] },
        'POST /calendars/pw/merge': { actId: 'act', count: 6 },
        'GET /acts/act/undo': {
          events: 6,
          removed: 0,
          returned: 0,
          newlySees: ['Everyone: will see more of 6 events'],
          seesLess: [],
        },
        'POST /acts/act/undo': { actId: 'undone', events: 6 },
      },
      'Merge into another …',
    )
    await user.click(dialog.getByText('Staff room'))
    expect(await dialog.findByText(/Everyone: complete to nothing/)).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: /^Merge/ }))
    expect(sent(asked, 'POST /calendars/pw/merge')).toEqual([{ into: 'stf' }])
    await user.click(await screen.findByRole('button', { name: /^Undo/ }))
    expect(await screen.findByText('6 events will be as they were before. Everyone: will see more of 6 events.')).toBeTruthy()
    expect(sent(asked, 'POST /acts/act/undo')).toEqual([])
    await user.click(await screen.findByRole('button', { name: /^Undo: 6 events|^Undo.*6 events/ }))
    expect(await screen.findByText('It is as it was before.')).toBeTruthy()
    expect(sent(asked, 'POST /acts/act/undo')).toHaveLength(1)
  })
})
