// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { Frame } from '../../src/web/desk/Frame'
import { answer, session, show } from './deskWorld'

const both = [
  { slug: 'grey-point', name: 'Grey Point Rowing Club' },
  { slug: 'pinewick', name: 'Pinewick Harbour School' },
]

describe('somebody of several organisations', () => {
  test('chooses one, and comes to the screen of the address there', async () => {
    answer({ 'GET /session': { ...session, organisation: null, organisations: both } })
    show('/', <Frame />)
    const choices = await screen.findAllByRole('link')
    expect(choices.map((choice) => choice.getAttribute('href'))).toEqual(['/at/grey-point/', '/at/pinewick/'])
    expect(screen.queryByRole('navigation', { name: 'Screens' })).toBeNull()
  })

  test('is told where the other one is, and somebody of one is not', async () => {
    answer({ 'GET /session': { ...session, organisations: both }, 'GET /sign-off/count': { toDecide: 0 }, 'GET /work': [] })
    const { user } = show('/', <Frame />)
    await user.click(await screen.findByRole('button', { name: /account/ }))
    expect((await screen.findByText('To Grey Point Rowing Club')).closest('a')?.getAttribute('href')).toBe('/at/grey-point/plan')
    expect(screen.queryByText('To Pinewick Harbour School')).toBeNull()
  })
})
