// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { PageData } from '../reader/edition'
import { Reader } from '../reader/Reader'
import { addresses, edition, entry, now, pageOf, part, port, serve, starboard } from './pageWorld'

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

function open(data: PageData) {
  const user = userEvent.setup()
  render(<Reader data={data} />)
  return user
}

const lab = entry('Boat lab', '2026-11-24 14:00-15:30', { place: 'Slipway' })
const quiz = entry('Tide quiz', '2026-11-25 09:00-10:00', { plates: ['SW'], category: { name: 'Assessment', colour: 'madder' } })
const regatta = entry('Regatta', '2026-11-26/2026-11-29', { plates: ['PW', 'SW'] })
const busy = entry('Busy', '2026-11-27 10:00-11:00', { plates: [], hasPage: false })
const week = [lab, quiz, regatta, busy]

const press = (name: string | RegExp) => screen.getByRole('button', { name })
const cell = (day: RegExp) => screen.getByRole('button', { name: day })
const titles = () => [...document.querySelectorAll('.weeks .entry-title, .line-title')].map((title) => title.textContent)
const headings = () => [...document.querySelectorAll('.day-name, .group-name')].map((one) => one.textContent)

describe('the month', () => {
  test('says what is on, whose it is, and which day it is', () => {
    open(pageOf(week))
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Dates for junior families')
    const today = cell(/Tuesday.*24 November, 1 on/)
    expect(today.getAttribute('aria-current')).toBe('date')
    const item = within(today.closest('td')!).getByRole('button', { name: /Boat lab/ })
    expect(item.textContent).toBe('PW 14:00 Boat lab')
    expect(cell(/Monday.*23 November, nothing on/).closest('td')!.className).toContain('is-empty')
    expect(document.querySelector('.edition-foot')!.textContent).toContain('Times are Halifax times')
  })

  test('what lasts for days stands on each of them, and says its title in full where a week begins', () => {
    const voyage = entry('Voyage', '2026-11-27/2026-12-03')
    open(pageOf([voyage]))
    const days = [...document.querySelectorAll('.weeks td')].filter((day) => day.textContent?.includes('Voyage'))
    expect(days.map((day) => day.querySelector('.day-choice')!.firstChild!.textContent)).toEqual([
      '27',
      '28',
      '29',
      '30',
      '1',
      '2',
    ])
    expect(days.map((day) => day.querySelector('.entry')!.classList.contains('goes-on'))).toEqual([
      false,
      true,
      true,
      false,
      true,
      true,
    ])
  })

  test('on its first day only where the edition says so', () => {
    open(pageOf([regatta], edition({ severalDays: 'first' })))
    expect([...document.querySelectorAll('.weeks td')].filter((day) => day.textContent?.includes('Regatta'))).toHaveLength(1)
  })

  test('thirty entries on a day stand behind “more” until somebody wants them', async () => {
    const many = Array.from({ length: 30 }, (_, index) => entry(`Slot ${index + 1}`, '2026-11-24 09:00-10:00'))
    const user = open(pageOf(many))
    const today = cell(/24 November, 30 on/).closest('td')!
    expect(within(today).getAllByRole('listitem')).toHaveLength(7)
    await user.click(within(today).getByRole('button', { name: '24 more' }))
    expect(within(today).getAllByRole('listitem')).toHaveLength(30)
  })

  test('one more than fits is shown and not hidden behind a word as long', () => {
    open(pageOf(Array.from({ length: 7 }, (_, index) => entry(`Slot ${index + 1}`, '2026-11-24 09:00-10:00'))))
    expect(screen.queryByRole('button', { name: /more/ })).toBeNull()
  })

  test('the days are one stop of the Tab key, and the arrow keys lead between them', async () => {
    const user = open(pageOf(week))
    expect([...document.querySelectorAll<HTMLElement>('[data-cell]')].filter((day) => day.tabIndex === 0)).toHaveLength(1)
    const today = cell(/24 November/)
    today.focus()
    await user.keyboard('{ArrowRight}')
    expect(document.activeElement).toBe(cell(/25 November/))
    await user.keyboard('{ArrowUp}{ArrowLeft}')
    expect(document.activeElement).toBe(cell(/17 November/))
    await user.keyboard('{ArrowDown}')
    expect(document.activeElement).toBe(cell(/24 November/))
    expect([...document.querySelectorAll<HTMLElement>('[data-cell]')].filter((day) => day.tabIndex === 0)).toEqual([
      cell(/24 November/),
    ])
  })

  test('the list of the chosen day stands below, for narrow frames', async () => {
    const user = open(pageOf(week))
    const below = () => document.querySelector('.chosen-day')!.textContent
    expect(below()).toContain('Boat lab')
    await user.click(cell(/25 November/))
    expect(below()).toContain('Tide quiz')
    expect(below()).not.toContain('Boat lab')
    await user.click(cell(/23 November/))
    expect(below()).toMatch(/Nothing is on Monday,? 23 November\./)
  })

  test('a week begins on the day that the edition says', () => {
    open(pageOf(week, edition({}, { firstDayOfWeek: 7 })))
    expect(document.querySelector('.weeks th abbr')!.getAttribute('title')).toBe('Sunday')
  })

  test('small, with its plates left out, where that is what the edition wants', () => {
    open(pageOf(week, edition({ view: 'smallMonth' }, { showsPlates: false })))
    expect(document.querySelector('.month')!.className).toContain('is-small')
    expect(document.querySelector('.weeks .plate')).toBeNull()
  })
})

describe('an entry that is pressed', () => {
  test('opens under its week, is read out, and gives the focus back', async () => {
    const user = open(pageOf(week))
    const item = press(/14:00 Boat lab/)
    await user.click(item)
    expect(item.getAttribute('aria-expanded')).toBe('true')
    const details = screen.getByRole('region', { name: 'Boat lab' })
    expect(document.activeElement).toBe(details)
    expect(details.textContent).toContain('14:00–15:30')
    expect(details.textContent).toContain('Slipway')
    await user.keyboard('{Escape}')
    expect(screen.queryByRole('region', { name: 'Boat lab' })).toBeNull()
    expect(document.activeElement).toBe(item)
  })

  test('opens where it was pressed, and moves with the focus to another of its days', async () => {
    const user = open(pageOf([regatta]))
    const days = screen.getAllByRole('button', { name: /Regatta/ })
    await user.click(days[0]!)
    const [first, second] = screen.getAllByRole('button', { name: /Regatta/, expanded: false })
    expect([first, second]).toHaveLength(2)
    await user.click(second!)
    expect(second!.getAttribute('aria-expanded')).toBe('true')
    expect(screen.getAllByRole('region', { name: 'Regatta' })).toHaveLength(1)
    expect(document.activeElement).toBe(screen.getByRole('region', { name: 'Regatta' }))
  })

  test('tells all that its readers may know, with links that lead out', async () => {
    const full = entry('Open evening', '2026-11-24 18:00-20:00', {
      category: { name: 'Meeting', colour: 'kelp' },
      description: '<p>Bring <b>oilskins</b></p>',
      contact: 'office',
      links: [{ label: 'Sign up', url: 'https://pinewick.example/sign-up' }],
      files: [{ name: 'plan.pdf', type: 'application/pdf', size: 5, address: 'files/1/plan.pdf' }],
      own: { zone: 'Europe/Oslo', start: '2026-11-24T23:00:00+01:00', end: '2026-11-25T01:00:00+01:00' },
    })
    const user = open(pageOf([full], edition({}, { isLive: false })))
    await user.click(press(/18:00 Open evening/))
    const details = within(screen.getByRole('region', { name: 'Open evening' }))
    expect(details.getByText('Meeting').className).toContain('hue-kelp')
    expect(details.getByText('oilskins').tagName).toBe('B')
    expect(details.getByText(/Contact: office/)).toBeTruthy()
    expect(details.getByText(/In Oslo: .*23:00/)).toBeTruthy()
    expect(details.getByRole('link', { name: /Sign up/ }).getAttribute('rel')).toContain('noopener')
    expect(details.getByRole('link', { name: /plan\.pdf/ }).getAttribute('href')).toBe('/c/pinewick/juniors/files/1/plan.pdf')
  })

  test('leads to its own page, to its first link or nowhere, as the edition says', () => {
    const linked = entry('Ferry', '2026-11-24 08:00-09:00', { links: [{ label: 'Tickets', url: 'https://ferry.example/' }] })
    const entries = [linked, entry('Walk', '2026-11-24 10:00-11:00')]
    open(pageOf(entries, edition({ onEntry: 'page' })))
    expect(screen.getAllByRole('link', { name: /Walk/ })[0]!.getAttribute('href')).toBe(
      `${addresses.page}/entries/${entries[1]!.id}`,
    )
    cleanup()
    open(pageOf(entries, edition({ onEntry: 'firstLink' })))
    expect(screen.getAllByRole('link', { name: /Ferry/ })[0]!.getAttribute('href')).toBe('https://ferry.example/')
    expect(screen.getAllByRole('button', { name: /10:00 Walk/ }).length).toBeGreaterThan(0)
    cleanup()
    open(pageOf(entries, edition({ onEntry: 'nothing' })))
    expect(document.querySelector('[data-entry]')).toBeNull()
  })

  test('a preview has no page of its own to lead to', () => {
    open(pageOf([lab], edition({ onEntry: 'page' }), { page: '', feed: '', webcal: '', atom: '' }))
    expect(screen.queryByRole('link', { name: /Boat lab/ })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Subscribe' })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Copy the link' })).toBeNull()
  })

  test('says when it is cancelled, and a break cannot be pressed', () => {
    const off = entry('Net mending', '2026-11-24 09:00-10:00', { state: 'cancelled' })
    const closed = entry('Storm week', '2026-11-25/2026-11-28', { isBreak: true, plates: [] })
    open(pageOf([off, closed], edition({ view: 'list' })))
    expect(press(/Net mending/).textContent).toContain('cancelled')
    expect(press(/Net mending/).className).toContain('is-cancelled')
    expect(screen.queryByRole('button', { name: /Storm week/ })).toBeNull()
    expect(screen.getAllByText('Storm week')).toHaveLength(3)
  })
})

describe('the other views', () => {
  test('a reader switches, and the address keeps what they look at', async () => {
    const user = open(pageOf(week))
    await user.click(press('Week'))
    expect(location.search).toBe('?view=week')
    expect(screen.getByRole('heading', { level: 2 }).textContent).toMatch(/23\s?–\s?29 November 2026/)
    expect(document.querySelectorAll('.column')).toHaveLength(7)
    await user.click(press('Day'))
    expect(screen.getByRole('heading', { level: 2 }).textContent).toMatch(/Tuesday,? 24 November/)
    expect(document.querySelectorAll('.column')).toHaveLength(1)
    await user.click(press('Month'))
    expect(location.search).toBe('')
  })

  test('lists begin today, under days with names that people use', () => {
    const yesterday = entry('Yesterday', '2026-11-23 10:00-11:00')
    const december = part('2026-12', [entry('Lamp parade', '2026-12-04 17:00-18:00')], edition({ view: 'list' }))
    const data = pageOf([yesterday, ...week], edition({ view: 'list' }))
    open({ ...data, months: [...data.months, december] })
    expect(titles()).toEqual(['Boat lab', 'Tide quiz', 'Regatta', 'Regatta', 'Busy', 'Regatta', 'Lamp parade'])
    expect(headings()).toEqual(['Today 24 Nov', 'Tomorrow 25 Nov', 'Thu 26 Nov', 'Fri 27 Nov', 'Sat 28 Nov', 'Fri 4 Dec'])
  })

  test.each([
    ['week', ['Mon 23 Nov – Sun 29 Nov']],
    ['month', ['November 2026']],
    ['calendar', ['Port Watch', 'Starboard Watch']],
    ['category', ['Assessment']],
    ['time', []],
  ] as const)('lists by %s', (grouping, expected) => {
    serve({ '.json?month=2026-12': part('2026-12', [], edition({ view: 'list', grouping })) })
    open(pageOf([lab, quiz, regatta], edition({ view: 'list', grouping })))
    expect(headings().map((one) => one?.replaceAll(',', ''))).toEqual(expected)
  })

  test('under any heading but its own the first line of a day says the day', () => {
    open(pageOf([lab, entry('Knots', '2026-11-24 16:00-17:00'), quiz], edition({ view: 'list', grouping: 'month' })))
    expect([...document.querySelectorAll('.line-day')].map((line) => line.textContent?.replace(',', ''))).toEqual([
      'Tue 24 Nov',
      'Wed 25 Nov',
    ])
  })

  test('lines are written by the edition’s pattern', () => {
    const line = [
      { piece: 'title' as const, text: '' },
      { piece: null, text: ' at ' },
      { piece: 'place' as const, text: '' },
      { piece: 'calendar' as const, text: '' },
      { piece: 'date' as const, text: '' },
      { piece: 'category' as const, text: '' },
    ]
    open(pageOf([{ ...lab, category: { name: 'Training', colour: 'kelp' } }], edition({ view: 'list', grouping: 'time', line })))
    expect(document.querySelector('.line')!.textContent!.replace(',', '')).toBe('Boat lab at SlipwayPort WatchTue 24 NovTraining')
  })

  test('cards with their pictures, or the hatch of their calendar', async () => {
    const pictured = { ...lab, picture: { name: 'gig.png', type: 'image/png', size: 9, address: 'files/2/gig.png' } }
    const user = open(pageOf([pictured, quiz], edition({ view: 'cards' })))
    expect(document.querySelector('.card img')!.getAttribute('src')).toBe('/c/pinewick/juniors/files/2/gig.png?width=480')
    expect(document.querySelector('.card-hatch')!.className).toContain('hue-timber')
    await user.click(press(/Boat lab/))
    expect(screen.getByRole('region', { name: 'Boat lab' }).querySelector('img')!.getAttribute('alt')).toBe('gig')
  })

  test('nothing on is said in the edition’s own words', () => {
    open(pageOf([], edition({ view: 'list', emptyText: 'The boats are ashore.' })))
    expect(screen.getByText('The boats are ashore.')).toBeTruthy()
    cleanup()
    open(pageOf([], edition({ view: 'cards' })))
    expect(screen.getByText('Nothing is on in these weeks.')).toBeTruthy()
  })

  test('twelve hours, long dates and another language', () => {
    open(pageOf([lab], edition({ view: 'day', clock: 'twelve' })))
    expect(press(/Boat lab/).textContent).toMatch(/2:00\s?pm/i)
    cleanup()
    open(pageOf([lab], edition({ view: 'month', language: 'de' })))
    expect(screen.getByRole('button', { name: 'Heute' })).toBeTruthy()
    expect(document.documentElement.lang).toBe('de')
  })

  test('from right to left where the language is', () => {
    open(pageOf([lab], edition({ language: 'ar' })))
    expect(document.documentElement.dir).toBe('rtl')
    expect(document.querySelector('.entry-title')!.getAttribute('dir')).toBe('auto')
    cleanup()
    open(pageOf([lab]))
    expect(document.documentElement.dir).toBe('ltr')
  })
})

describe('other dates', () => {
  const december = (title: string, look = {}) => part('2026-12', [entry(title, '2026-12-04 17:00-18:00')], edition(look))

  test('a month that is not here yet is fetched once, and its name is read out', async () => {
    const asked = serve({ '.json?month=2026-12': december('Lamp parade') })
    const user = open(pageOf(week))
    const heading = screen.getByRole('heading', { level: 2 })
    expect(heading.getAttribute('aria-live')).toBe('polite')
    await user.click(press('Later'))
    expect(heading.textContent).toBe('December 2026')
    expect((await screen.findAllByRole('button', { name: /Lamp parade/ })).length).toBeGreaterThan(0)
    await user.click(press('Earlier'))
    await user.click(press('Later'))
    expect(asked).toEqual(['.json?month=2026-12'])
    expect(location.search).toBe('?date=2026-12-01')
    await user.click(press('Today'))
    expect(location.search).toBe('')
  })

  test('a day is gone to, and chosen', async () => {
    serve({ '.json?month=2026-12': december('Lamp parade') })
    history.replaceState(null, '', '?date=2026-12-04')
    open({ ...pageOf([]), months: [december('Lamp parade')] })
    expect(cell(/\b4 December/).getAttribute('aria-pressed')).toBe('true')
    expect(screen.getByLabelText<HTMLInputElement>('Go to a date').value).toBe('2026-12-04')
  })

  test('an edition that ends leads no further, and one that began later no earlier', () => {
    open(pageOf(week, edition({}, { from: '2026-11-02', to: '2026-12-01' })))
    expect((press('Later') as HTMLButtonElement).disabled).toBe(true)
    expect((press('Earlier') as HTMLButtonElement).disabled).toBe(true)
    expect(screen.getByLabelText('Go to a date').getAttribute('max')).toBe('2026-11-30')
  })

  test('without navigation there is none, and an edition with a limit is all there at once', () => {
    open(pageOf(week, edition({ navigation: false })))
    expect(screen.queryByRole('button', { name: 'Later' })).toBeNull()
    cleanup()
    const asked = serve({})
    open(pageOf(week, edition({ view: 'list' }, { isWhole: true, from: '2026-11-24' })))
    expect(screen.queryByRole('button', { name: 'Later' })).toBeNull()
    expect(titles()).toContain('Boat lab')
    expect(asked).toEqual([])
  })

  test('what cannot be fetched leaves what is there, and says so in the edition’s words', async () => {
    const user = open(pageOf(week, edition({ failedText: 'Ring the office.' })))
    await user.click(press('Later'))
    expect(await screen.findByText('Ring the office.')).toBeTruthy()
    await user.click(press('Earlier'))
    expect(titles()).toContain('Boat lab')
  })

  test('an edition that was closed says so and nothing else', async () => {
    serve({ '.json?month=2026-12': 410 })
    const user = open(pageOf(week))
    await user.click(press('Later'))
    expect(await screen.findByText('This calendar is not open any more.')).toBeTruthy()
    expect(document.body.textContent).not.toContain('Boat lab')
  })
})

describe('whoever narrows the page', () => {
  test('to the calendars that concern them finds it so again, and sends it so', async () => {
    const user = open(pageOf(week))
    const legend = within(screen.getByRole('group', { name: 'Show' }))
    expect(legend.queryByRole('button', { name: /Slipway/ })).toBeNull()
    await user.click(legend.getByRole('button', { name: /Starboard Watch/ }))
    expect(legend.getByRole('button', { name: /Starboard Watch/ }).getAttribute('aria-pressed')).toBe('false')
    expect(titles()).not.toContain('Tide quiz')
    expect(titles()).toContain('Regatta')
    expect(location.search).toBe('?only=PW')
    cleanup()
    history.replaceState(null, '', '/c/pinewick/juniors')
    open(pageOf(week))
    expect(titles()).not.toContain('Tide quiz')
  })

  test('what the address says goes before what is remembered', () => {
    localStorage.setItem(`valtro-only:${addresses.base}`, 'PW')
    history.replaceState(null, '', '?only=SW')
    open(pageOf(week))
    expect(titles()).toContain('Tide quiz')
    expect(titles()).not.toContain('Boat lab')
  })

  test('all of them, or none, is no choice', async () => {
    const user = open(pageOf(week, edition({}, { sources: [port, starboard] })))
    await user.click(press(/Port Watch/))
    await user.click(press(/Starboard Watch/))
    expect(location.search).toBe('')
    expect(titles()).toContain('Boat lab')
  })

  test('a calendar that has left the edition since is forgotten', () => {
    history.replaceState(null, '', '?only=GONE')
    open(pageOf(week))
    expect(titles()).toContain('Boat lab')
  })

  test('takes a feed of just that', async () => {
    const user = open(pageOf(week))
    await user.click(press(/Starboard Watch/))
    await user.click(press('Subscribe'))
    const panel = within(screen.getByRole('region', { name: 'Subscribe' }))
    expect(panel.getByText(/Only the calendars that you have chosen/)).toBeTruthy()
    expect(panel.getByLabelText<HTMLInputElement>(/this address/).value).toBe(`${addresses.feed}?only=PW`)
    expect(panel.getByRole('link').getAttribute('href')).toBe(`${addresses.webcal}?only=PW`)
    await user.click(panel.getByRole('button', { name: 'Copy the feed link' }))
    expect(await navigator.clipboard.readText()).toBe(`${addresses.feed}?only=PW`)
    expect(panel.getByRole('status').textContent).toBe('Copied.')
  })
})

describe('search', () => {
  const cafe = entry('Café by the pier', '2027-03-01 15:00-17:00', { description: '<p>With the <i>harbour choir</i></p>' })

  test('goes over all of the edition’s days, without regard to accents, and opens what it found', async () => {
    const asked = serve({ '.json?month=all': part('all', [...week, cafe], edition()) })
    const user = open(pageOf(week))
    await user.type(screen.getByRole('searchbox'), 'cafe')
    expect(await screen.findByText('1 found')).toBeTruthy()
    expect(asked).toContain('.json?month=all')
    const found = within(screen.getByRole('region', { name: 'Search' }))
    await user.click(found.getByRole('button', { name: /Café/ }))
    expect(found.getByRole('region', { name: 'Café by the pier' })).toBeTruthy()
  })

  test('in descriptions, places and the names of calendars too, but not in their markup', async () => {
    serve({ '.json?month=all': part('all', [...week, cafe], edition()) })
    const user = open(pageOf(week))
    const box = screen.getByRole('searchbox')
    await user.type(box, 'Harbour CHOIR')
    expect(await screen.findByText('1 found')).toBeTruthy()
    await user.clear(box)
    await user.type(box, 'starboard')
    expect(screen.getByText('2 found')).toBeTruthy()
    await user.clear(box)
    await user.type(box, '<p>')
    expect(screen.getByText('Nothing found')).toBeTruthy()
  })
})

describe('changed lately', () => {
  const change = (what: string, more = {}) => ({
    change: what,
    at: '2026-11-23T10:00:00Z',
    entry: { ...lab, id: what },
    wasStart: '2026-11-23T14:00:00-04:00',
    wasEnd: '2026-11-23T15:30:00-04:00',
    wasPlace: 'Loft',
    more: 0,
    ...more,
  })

  test('says what became of each, and what it was', async () => {
    serve({
      '/changed.json': {
        changes: [change('moved', { more: 3 }), change('cancelled'), change('relocated'), change('takesPlace')],
      },
    })
    const user = open(pageOf(week))
    await user.click(press('Changed lately'))
    const panel = screen.getByRole('region', { name: 'Changed lately' })
    const lines = (await within(panel).findAllByRole('listitem')).map((line) => line.textContent!)
    expect(lines[0]).toMatch(/Boat lab .*24 Nov.*\(was .*23 Nov.*\) and 3 later dates/)
    expect(lines[1]).toMatch(/cancelled .*23 Nov/)
    expect(lines[2]).toMatch(/Slipway \(was Loft\)/)
    expect(lines[3]).toMatch(/takes place after all: .*23 Nov/)
    expect(within(panel).getByRole('link', { name: 'Atom' }).getAttribute('href')).toBe(addresses.atom)
    await user.click(within(panel).getByRole('button', { name: 'Close' }))
    expect(screen.queryByRole('region', { name: 'Changed lately' })).toBeNull()
  })

  test('says when nothing was, and when it cannot be known', async () => {
    serve({ '/changed.json': { changes: [] } })
    const user = open(pageOf(week))
    await user.click(press('Changed lately'))
    expect(await screen.findByText('Nothing was moved or cancelled in the last 14 days.')).toBeTruthy()
    await user.click(press('Changed lately'))
    serve({})
    await user.click(press('Changed lately'))
    expect(await screen.findByText(/could not be fetched/)).toBeTruthy()
  })
})

describe('giving it away', () => {
  test('the page with what is looked at, copied where the device has no dialog of its own', async () => {
    const user = open(pageOf(week))
    await user.click(press('Week'))
    await user.click(press('Copy the link'))
    expect(await navigator.clipboard.readText()).toBe(`${addresses.page}?view=week`)
  })

  test('an entry by the device’s own dialog; closing it copies nothing', async () => {
    const shared: unknown[] = []
    const user = userEvent.setup()
    Object.defineProperty(navigator, 'share', {
      value: (what: unknown) => {
        shared.push(what)
        return Promise.reject(new DOMException('closed', 'AbortError'))
      },
      configurable: true,
    })
    vi.stubGlobal(
      'EventSource',
      class {
        static OPEN = 1
        readyState = 1
        addEventListener() {}
        close() {}
      },
    )
    render(<Reader data={pageOf(week, edition({}, { isLive: true }))} />)
    await user.click(press(/14:00 Boat lab/))
    const details = within(screen.getByRole('region', { name: 'Boat lab' }))
    await user.click(details.getByRole('button', { name: 'Share' }))
    expect(shared).toEqual([
      { title: expect.stringContaining('Boat lab, Tuesday') as string, url: `${addresses.page}/entries/${lab.id}` },
    ])
    expect(details.getByRole('status').textContent).toBe('')
    expect(details.getByRole('link', { name: 'Add to a calendar' }).getAttribute('href')).toBe(
      `${addresses.page}/entries/${lab.id}.ics`,
    )
  })

  test('on paper: a month a page, or one list without anything to press', async () => {
    const printed = vi.fn()
    vi.stubGlobal('print', printed)
    serve({ '.json?month=all': part('all', [...week, entry('Lamp parade', '2026-12-04 17:00-18:00')], edition()) })
    const user = open(pageOf(week, edition({}, { to: '2026-12-19' })))
    await user.click(press('Print months'))
    const sheet = () => document.querySelector<HTMLElement>('.sheet')!
    expect(await screen.findByText('Lamp parade')).toBeTruthy()
    expect([...sheet().querySelectorAll('caption')].map((name) => name.textContent)).toEqual(['November 2026', 'December 2026'])
    expect(sheet().querySelector('button')).toBeNull()
    expect(printed).toHaveBeenCalledTimes(1)
    window.dispatchEvent(new Event('afterprint'))
    expect(await vi.waitFor(() => (expect(document.querySelector('.sheet')).toBeNull(), true))).toBe(true)
    await user.click(press('Print a list'))
    expect([...sheet().querySelectorAll('.line-title')].filter((title) => title.textContent === 'Regatta')).toHaveLength(1)
    expect(sheet().querySelector('.is-today')).toBeNull()
  })
})

describe('a reader elsewhere', () => {
  test('is told their own time beside that of the edition', () => {
    vi.spyOn(Intl.DateTimeFormat.prototype, 'resolvedOptions').mockReturnValue({
      timeZone: 'Europe/Oslo',
    } as Intl.ResolvedDateTimeFormatOptions)
    open(pageOf([lab], edition({ view: 'list' })))
    vi.restoreAllMocks()
    expect(document.querySelector('.own-time')!.textContent).toBe(' Your time: 19:00–20:30')
  })
})
