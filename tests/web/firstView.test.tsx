// @vitest-environment jsdom
import { cleanup, render } from '@testing-library/react'
import { readFileSync, writeFileSync } from 'node:fs'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Edition, Entry, Look, PageData } from '../../src/web/reader/edition'
import { Reader } from '../../src/web/reader/Reader'
import { edition, entry, now, pageOf, part, serve } from './pageWorld'

/*
 * The server paints the first view, and the script puts its own in the place of it: nothing may move. Both are held against
 * the same outlines in tests/first-view; the server's side of it is FirstViewTests.cs. After a wanted change of the script's
 * side: VALTRO_WRITE_FIXTURES=1 npx vitest run firstView (in tests/web)
 */
const folder = `${import.meta.dirname}/../first-view`
const writes = process.env.VALTRO_WRITE_FIXTURES === '1'

const entries: Entry[] = [
  entry('Storm week', '2026-11-02/2026-11-07', { isBreak: true, plates: [], hasPage: false }),
  entry('Voyage of the juniors', '2026-11-20/2026-12-03', { plates: ['PW', 'SW'], place: 'Grey Point' }),
  ...Array.from({ length: 9 }, (_, index) => entry(`Slot ${index + 1}`, `2026-11-24 0${index + 1}:00-0${index + 1}:30`)),
  entry('Boat lab <&> "knots"', '2026-11-24 14:00-15:30', { place: 'Slipway', category: { name: 'Training', colour: 'kelp' } }),
  entry('Net mending', '2026-11-25 09:00-10:00', { plates: ['SW'], state: 'cancelled' }),
  entry('Night watch', '2026-11-26/2026-11-27 22:00-06:00'),
  entry('Papers are due', '2026-11-27 16:00-16:00', { plates: ['SW'], category: { name: 'Assessment', colour: 'madder' } }),
  entry('Busy', '2026-11-28 10:00-12:00', { plates: [], hasPage: false }),
  entry('Harbour day', '2026-11-29', { plates: ['PW'], state: 'draft' }),
]
const pictured = { name: 'gig.png', type: 'image/png', size: 9, address: 'files/2/gig.png' }

const entriesOf = {
  usual: entries,
  pictured: entries.map((one) => (one.title === 'Night watch' ? { ...one, picture: pictured } : one)),
  next: entries.slice(10),
  closed: [
    entry('Winter break', '2026-11-23/2026-11-28', { isBreak: true, plates: [], hasPage: false }),
    entry('Boat is mended', '2026-11-25 09:00-12:00'),
  ],
  none: [],
  later: [entry('Lamp parade', '2026-12-04 17:00-18:30', { place: 'Quay' })],
}

interface Page {
  edition: Edition
  entries: keyof typeof entriesOf
}

const page = (look: Partial<Look>, more: Partial<Edition> = {}, what: Page['entries'] = 'usual'): Page => ({
  edition: edition(look, more),
  entries: what,
})

const ownLine = [
  { piece: 'title' as const, text: '' },
  { piece: null, text: ' – ' },
  { piece: 'date' as const, text: '' },
  { piece: 'calendar' as const, text: '' },
  { piece: 'category' as const, text: '' },
]

const pages: Record<string, Page> = {
  month: page({}),
  'month-first-day-only': page({ severalDays: 'first' }),
  'month-from-sunday': page({}, { firstDayOfWeek: 7 }),
  'month-without-plates': page({}, { showsPlates: false }),
  'month-of-one-calendar': page(
    { navigation: false, zoneLabel: false },
    { sources: edition().sources.slice(0, 1), description: '' },
  ),
  'month-empty': page({ legend: false }, {}, 'none'),
  'small-month': page({ view: 'smallMonth', views: ['smallMonth'] }),
  week: page({ view: 'week' }),
  'week-long-dates': page({ view: 'week', dates: 'long' }),
  day: page({ view: 'day' }),
  'list-by-day': page({ view: 'list' }),
  'list-by-week': page({ view: 'list', grouping: 'week' }),
  'list-by-month': page({ view: 'list', grouping: 'month' }),
  'list-by-calendar': page({ view: 'list', grouping: 'calendar' }),
  'list-by-category': page({ view: 'list', grouping: 'category' }),
  'list-by-time': page({ view: 'list', grouping: 'time' }),
  'list-first-day-only': page({ view: 'list', severalDays: 'first' }),
  'list-in-a-break': page({ view: 'list' }, {}, 'closed'),
  'list-own-line': page({ view: 'list', line: ownLine }),
  'list-empty': page({ view: 'list', emptyText: 'The boats are ashore.' }, {}, 'none'),
  'list-of-the-next': page({ view: 'list' }, { isWhole: true, from: '2026-11-24' }, 'next'),
  cards: page({ view: 'cards' }, {}, 'pictured'),
  german: page({ language: 'de', view: 'list' }),
  french: page({ language: 'fr', view: 'week' }),
  'twelve-hours': page({ clock: 'twelve', view: 'day' }),
}

/** A month holds all of the weeks that it touches, so what is early in the next one stands in both. */
function dataOf({ edition: of, entries: what }: Page): PageData {
  if (of.isWhole) return pageOf(entriesOf[what], of)
  const later = what === 'none' ? [] : entriesOf.later
  const first = pageOf([...entriesOf[what], ...later], of)
  return { ...first, months: [...first.months, part('2026-12', later, of)] }
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'], now })
  vi.spyOn(Intl.DateTimeFormat.prototype, 'resolvedOptions').mockReturnValue({
    timeZone: 'America/Halifax',
  } as Intl.ResolvedDateTimeFormatOptions)
  Object.defineProperty(navigator, 'languages', { value: ['en-GB'], configurable: true })
  history.replaceState(null, '', '/c/pinewick/juniors')
  serve({})
})

afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** What takes room: each box with a class, a heading or a day of the year, and the text that is its own. */
function outlineOf(main: Element): string {
  main.querySelectorAll('.visually-hidden, caption, .edition-foot').forEach((one) => one.remove())
  return [...main.querySelectorAll('[class], h1, h2, b')]
    .map((box) => {
      const own = [...box.childNodes].filter((node) => node.nodeType === 3).map((node) => node.textContent)
      return `${[...box.classList].join(' ') || box.tagName.toLowerCase()}: ${own.join('').replace(/\s+/g, ' ').trim()}`
    })
    .join('\n')
    .concat('\n')
}

test.each(Object.keys(pages))('%s is drawn by the script as it stands in its outline', (name) => {
  const { container } = render(<Reader data={dataOf(pages[name]!)} />)
  const outline = outlineOf(container.querySelector('main')!)
  if (writes) writeFileSync(`${folder}/${name}.txt`, outline)
  expect(outline).toBe(readFileSync(`${folder}/${name}.txt`, 'utf8'))
})

test('the server is given the same pages', () => {
  const given = { today: '2026-11-24', entries: entriesOf, pages }
  if (writes) writeFileSync(`${folder}/pages.json`, `${JSON.stringify(given)}\n`)
  expect(JSON.parse(JSON.stringify(given))).toEqual(JSON.parse(readFileSync(`${folder}/pages.json`, 'utf8')))
})
