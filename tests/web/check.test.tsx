// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import { CheckPage } from '../../src/web/desk/check/CheckPage'
import { answer, refusal, sent, show } from './deskWorld'

const found = {
  errors: 1,
  warnings: 0,
  notes: 1,
  hidden: 2,
  lines: 9,
  components: 1,
  faults: [
    {
      code: 'dateUnreadable',
      severity: 'error',
      line: 7,
      column: 9,
      clause: 'RFC 5545 3.3.4',
      text: '2026-11-24 is no date. Write 20261124.',
    },
    {
      code: 'misreadDates',
      severity: 'note',
      line: 8,
      column: 1,
      clause: 'RFC 5545 3.8.5.2',
      text: 'Some programs show the first only.',
    },
  ],
}

test('says of pasted text what is wrong where, by which clause, and what to do', async () => {
  const { user } = (answer({ 'POST /check/file': found }), show('/check', <CheckPage />))
  await user.click(screen.getByText('Or text'))
  await user.type(screen.getByRole('textbox', { name: 'Text of the file' }), 'BEGIN:VCALENDAR')
  await user.click(screen.getByRole('button', { name: 'Check it' }))
  expect(await screen.findByText('1 errors, 0 warnings and 1 notes in 9 lines.')).toBeTruthy()
  expect(
    screen.getByRole('row', { name: /line 7, column 9 error 2026-11-24 is no date. Write 20261124. RFC 5545 3.3.4/ }),
  ).toBeTruthy()
  expect(screen.getByText('And 2 more of these kinds.')).toBeTruthy()
})

test('an address that cannot be had is said at the field, and what was typed stays', async () => {
  const asked = answer({
    'POST /check/address': refusal(400, 'elsewhere.example is not known.', { address: ['elsewhere.example is not known.'] }),
  })
  const { user } = show('/check', <CheckPage />)
  await user.type(screen.getByRole('textbox', { name: 'Or an address' }), 'https://elsewhere.example/a.ics')
  await user.click(screen.getByRole('button', { name: 'Fetch and check it' }))
  expect(await screen.findByText('elsewhere.example is not known.')).toBeTruthy()
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Or an address' }).value).toBe('https://elsewhere.example/a.ics')
  expect(sent(asked, 'POST /check/address')).toEqual([{ address: 'https://elsewhere.example/a.ics' }])
})
