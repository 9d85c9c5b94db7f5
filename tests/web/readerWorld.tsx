import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, vi } from 'vitest'
import type { PageData } from '../../src/web/reader/edition'
import { Reader } from '../../src/web/reader/Reader'
import { entry, now, serve } from './pageWorld'

/** Each test of a file has a reader of its own: at one moment, in one language, with an empty memory and a site that answers nothing. */
export function eachHasAReader() {
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['Date'], now })
    Object.defineProperty(navigator, 'languages', { value: ['en-GB'], configurable: true })
    history.replaceState(null, '', '/c/pinewick/juniors')
    localStorage.clear()
    serve({})
  })

  afterEach(() => {
    cleanup()
    vi.unstubAllGlobals()
    Reflect.deleteProperty(navigator, 'share')
    vi.useRealTimers()
  })
}

export function open(data: PageData) {
  const user = userEvent.setup()
  render(<Reader data={data} />)
  return user
}

export const lab = entry('Boat lab', '2026-11-24 14:00-15:30', { place: 'Slipway' })
export const quiz = entry('Tide quiz', '2026-11-25 09:00-10:00', {
  plates: ['SW'],
  category: { id: '1', name: 'Assessment', colour: 'madder' },
})
export const regatta = entry('Regatta', '2026-11-26/2026-11-29', { plates: ['PW', 'SW'] })
export const busy = entry('Busy', '2026-11-27 10:00-11:00', { plates: [], hasPage: false })
export const week = [lab, quiz, regatta, busy]

export const press = (name: string | RegExp) => screen.getByRole('button', { name })
export const cell = (day: RegExp) => screen.getByRole('button', { name: day })
export const titles = () => [...document.querySelectorAll('.weeks .entry-title, .line-title')].map((title) => title.textContent)
export const headings = () => [...document.querySelectorAll('.day-name, .group-name')].map((one) => one.textContent)
