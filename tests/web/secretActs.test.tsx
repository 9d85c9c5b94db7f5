// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import { SecretActs } from '../../src/web/desk/SecretActs'
import { answer, refusal, sent, show } from './deskWorld'

const words = {
  make: 'Make one',
  made: 'Made.',
  ifReplaced: 'The old one stops.',
  doReplace: 'Replace the address',
  replaced: 'Replaced.',
  ifWithdrawn: 'It cannot be brought back.',
  doWithdraw: 'Withdraw the address',
  withdrawn: 'Withdrawn.',
}

const link = { page: 'https://dates.example/s/1', feed: null, madeAt: null, showsNothing: false }

test('what cannot be undone is asked about, and done by the second click only', async () => {
  const asked = answer({ 'POST /editions/juniors/link': link, 'DELETE /editions/juniors/link': null })
  const { user } = show('/', <SecretActs path="/editions/juniors/link" isThere words={words} />)
  await user.click(screen.getByRole('button', { name: 'Withdraw it …' }))
  expect(screen.getByRole('alert').textContent).toContain('It cannot be brought back.')
  await user.click(screen.getByRole('button', { name: 'Leave it' }))
  expect(sent(asked, 'DELETE /editions/juniors/link')).toHaveLength(0)
  await user.click(screen.getByRole('button', { name: 'Replace it …' }))
  await user.click(screen.getByRole('button', { name: 'Replace the address' }))
  await screen.findByText('Replaced.')
  expect(sent(asked, 'POST /editions/juniors/link')).toHaveLength(1)
})

test('what is refused stays to be read, and can be tried again', async () => {
  answer({ 'POST /editions/juniors/link': refusal(403, 'You may not do this.') })
  const { user } = show('/', <SecretActs path="/editions/juniors/link" isThere={false} words={words} />)
  await user.click(screen.getByRole('button', { name: 'Make one' }))
  expect((await screen.findByRole('alert')).textContent).toBe('You may not do this.')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make one' }).disabled).toBe(false)
})
