// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react'
import { expect, test } from 'vitest'
import { ChangesProvider } from '../../src/web/desk/changes/Changes'
import { LinePage } from '../../src/web/desk/event/LinePage'
import { movedEnd } from '../../src/web/desk/event/movedEnd'
import type { LineReading } from '../../src/web/desk/types'
import { answer, port, sent, show, staff, starboard } from './deskWorld'

const settled = 'Spring concert Tuesday 4 May 2027 19:30'
const event = { title: 'Spring concert', date: '2027-05-04', from: '19:30:00', to: '20:30:00' }

/** As the server reads it: with a question until the day is settled. */
const reading = (text: string): LineReading =>
  ({
    events: [event],
    calendarId: null,
    understood: [{ field: 'title', words: 'Spring concert', means: 'Spring concert' }],
    pieces: [
      { text: 'Spring concert', field: 'title', isAsked: false },
      { text: '4 May', field: 'date', isAsked: text !== settled },
    ],
    questions:
      text === settled
        ? []
        : [
            {
              field: 'date',
              words: '4 May',
              why: 'no year is written',
              choices: [{ words: 'Tuesday 4 May 2027', line: settled }],
            },
          ],
  }) as unknown as LineReading

function open(line: string) {
  const asked = answer({
    'POST /events/line': (body: unknown) => reading((body as { text: string }).text),
    'POST /events/together': { actId: 'act', events: 1, waits: false },
  })
  const { user } = show(
    '/events/new',
    <ChangesProvider>
      <LinePage calendars={[port, starboard, staff].map((one) => ({ ...one, mayContribute: true }))} />
    </ChangesProvider>,
    `/events/new?line=${encodeURIComponent(line)}`,
  )
  return { user, asked }
}

const isOff = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name }).disabled

test('a line is saved only when nothing is left to ask and a calendar is chosen', async () => {
  const { user, asked } = open('Spring concert 4 May 19:30')
  await user.click(await screen.findByRole('button', { name: 'Tuesday 4 May 2027' }))
  expect(screen.getByLabelText<HTMLInputElement>('The line').value).toBe(settled)
  await screen.findByText('Choose a calendar.')
  expect(isOff('Save')).toBe(true)
  await user.click(screen.getByRole('radio', { name: /Port Watch/ }))
  await waitFor(() => expect(isOff('Save')).toBe(false))
  await user.click(screen.getByRole('button', { name: 'Save' }))
  await screen.findByText(/“Spring concert” is saved on Port Watch/)
  expect(sent(asked, 'POST /events/together')).toEqual([{ events: [{ ...event, calendarId: port.id }] }])
})

test('a question keeps the line from being saved and from the form', async () => {
  open('Spring concert 4 May 19:30')
  await screen.findByText('Saved only when nothing is left to ask.')
  expect(isOff('Save')).toBe(true)
  expect(isOff('Open the whole form')).toBe(true)
})

test('a start that moves takes the end with it', () => {
  expect(movedEnd('09:00', '10:30', '19:15')).toBe('20:45')
  expect(movedEnd('22:00', '01:00', '23:30')).toBe('02:30')
  expect(movedEnd('09:00', '10:00', null)).toBe('10:00')
  expect(movedEnd(null, '10:00', '11:00')).toBe('10:00')
})
