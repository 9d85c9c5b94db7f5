// @vitest-environment happy-dom
import { act } from '@testing-library/react'
import { hydrateRoot, type Root } from 'react-dom/client'
import { renderToString } from 'react-dom/server.browser'
import { afterEach, describe, expect, test, vi } from 'vitest'
import type { Entry, Look, View } from '../../src/web/reader/edition'
import { Reader } from '../../src/web/reader/Reader'
import './clock'
import { edition, pageOf } from './pageWorld'
import { week } from './readerWorld'

/* A page that the server painted is taken over by the script, whatever way of writing dates the server's machine has. */

const views: View[] = ['month', 'smallMonth', 'week', 'day', 'list', 'cards']

let root: Root | undefined

afterEach(() => {
  act(() => root?.unmount())
  root = undefined
  document.body.innerHTML = ''
  vi.restoreAllMocks()
})

/** Painted by a program that writes other spaces and other abbreviations than this one. */
function painted(data: ReturnType<typeof pageOf>): string {
  const usual = Object.getOwnPropertyDescriptor(Intl.DateTimeFormat.prototype, 'format')!
  Object.defineProperty(Intl.DateTimeFormat.prototype, 'format', {
    configurable: true,
    value(this: Intl.DateTimeFormat, date: Date) {
      return this.formatToParts(date)
        .map((part) => (part.type === 'literal' ? part.value.replaceAll(' ', '\u00a0') : `${part.value}.`))
        .join('')
    },
  })
  const range = vi.spyOn(Intl.DateTimeFormat.prototype, 'formatRange').mockReturnValue('23.\u2009–\u200929. Nov')
  const html = renderToString(<Reader data={data} />)
  Object.defineProperty(Intl.DateTimeFormat.prototype, 'format', usual)
  range.mockRestore()
  return html
}

function take(data: ReturnType<typeof pageOf>, html: string): { problems: string[]; nodes: Element[] } {
  document.body.innerHTML = `<div id="reader">${html}</div>`
  const spot = document.getElementById('reader')!
  const nodes = [...spot.querySelectorAll('*')]
  const problems: string[] = []
  vi.spyOn(console, 'error').mockImplementation((...said) => void problems.push(said.map(String).join(' ').slice(0, 300)))
  act(() => {
    root = hydrateRoot(spot, <Reader data={data} />, {
      onRecoverableError: (problem) => void problems.push(String(problem)),
    })
  })
  return { problems, nodes }
}

const pageIn = (view: View, look: Partial<Look> = {}, entries: Entry[] = week) => pageOf(entries, edition({ view, ...look }))

describe('what the server painted', () => {
  test.each(views)('is taken over as it stands: %s', (view) => {
    const data = pageIn(view)
    const html = painted(data)
    const { problems, nodes } = take(data, html)
    expect(problems).toEqual([])
    // Nothing was thrown away and made anew.
    expect(nodes.filter((node) => !node.isConnected && !node.matches('.choice, .choice *'))).toEqual([])
  })

  test('is taken over as it stands where it was kept for when there is no network, and then says since when', () => {
    const data = pageIn('list')
    const html = painted(data)
    document.head.innerHTML = '<meta name="kept-at" content="2026-11-23T11:00:00.000Z">'
    const { problems } = take(data, html)
    document.head.innerHTML = ''
    expect(problems).toEqual([])
    expect(document.querySelector('[role=status].notice')?.textContent).toMatch(
      /There is no network\. This is the copy of .*(23 Nov|Nov 23)/,
    )
  })

  test.each(views)('needs no style or script of its own: %s', (view) => {
    const html = painted(pageIn(view))
    expect(html).not.toMatch(/ style=/)
    expect(html).not.toMatch(/<script/)
    expect(html).not.toMatch(/ inert/)
  })

  test.each(views)('leads earlier, later, to other views and to entries’ own pages without a script: %s', (view) => {
    const html = painted(pageIn(view))
    document.body.innerHTML = html
    const hrefs = [...document.querySelectorAll('a[href]')].map((link) => link.getAttribute('href')!)
    expect(hrefs.filter((href) => /^\?.*date=2026-1[012]/.test(href)).length).toBeGreaterThan(1)
    expect(hrefs.some((href) => href.includes('view='))).toBe(true)
    expect(hrefs.some((href) => href.includes('/entries/'))).toBe(true)
    expect(hrefs).toContain('https://dates.example/c/pinewick/juniors.ics')
    expect(document.querySelectorAll('a[role=button]').length).toBe(0)
  })

  test('speaks the language that the server heeded, and becomes the reader’s own afterwards', () => {
    const data = pageIn('month', { language: '' })
    data.painted.languages = ['de']
    const html = painted(data)
    expect(html).toContain('Heute')
    vi.spyOn(navigator, 'languages', 'get').mockReturnValue(['de-DE', 'en'])
    expect(take(data, html).problems).toEqual([])
    expect(document.body.textContent).toContain('Heute')
    expect(document.documentElement.lang).toBe('de')
  })

  test('text below the title keeps its lines, and its addresses can be followed', () => {
    const data = pageOf(week, edition({}, { description: 'Questions?\nSee https://pinewick.example/office.' }))
    document.body.innerHTML = painted(data)
    const about = document.querySelector('.edition-about')!
    expect(about.textContent).toBe('Questions?\nSee https://pinewick.example/office.')
    expect(about.querySelector('a')!.getAttribute('href')).toBe('https://pinewick.example/office')
  })
})
