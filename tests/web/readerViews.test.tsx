// @vitest-environment happy-dom
import { cleanup, screen, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import { edition, entry, pageOf, part, serve } from './pageWorld'
import { cell, eachHasAReader, headings, lab, open, press, quiz, regatta, titles, week } from './readerWorld'

eachHasAReader()

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

  test('a line can say who leads', () => {
    const people = [
      { name: 'Bo Quilliam', part: 'leads' as const, from: null, to: null },
      { name: 'Captain Marr', part: 'speaks' as const, from: null, to: null },
    ]
    const line = (['title', 'people'] as const).map((piece) => ({ piece, text: '' }))
    open(pageOf([entry('Boat lab', '2026-11-24 14:00-15:30', { people })], edition({ view: 'list', line })))
    expect(screen.getByRole('button', { name: /Boat lab/ }).textContent).toBe('Boat labBo Quilliam')
  })

  test('what is due, and what is not certain yet, are shapes that are said in words too', () => {
    const due = entry('Essay', '2026-11-25 17:00-17:00', { kind: 'deadline' })
    const walk = entry('Survey walk', '2026-11-26 09:00-12:00', { certainty: 'tentative' })
    open(pageOf([due, walk]))
    const item = within(cell(/Wednesday.*25 November, 1 on/).closest('td')!).getByRole('button', { name: /Essay.*due/ })
    expect(item.className).toContain('due')
    const torn = within(cell(/Thursday.*26 November, 1 on/).closest('td')!).getByRole('button', { name: /not certain yet/ })
    expect(torn.className).toContain('torn')
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
    open(
      pageOf(
        [{ ...lab, category: { id: '1', name: 'Training', colour: 'kelp' } }],
        edition({ view: 'list', grouping: 'time', line }),
      ),
    )
    expect(document.querySelector('.line')!.textContent!.replace(',', '')).toBe('Boat lab at SlipwayPort WatchTue 24 NovTraining')
  })

  test('cards with their pictures, or the hatch of their calendar', async () => {
    const pictured = {
      ...lab,
      picture: { address: 'files/2/gig.png', alternative: 'A gig under oars', focus: 'topRight' as const },
    }
    const user = open(pageOf([pictured, quiz], edition({ view: 'cards' })))
    const inCard = document.querySelector('.card img')!
    expect(inCard.getAttribute('src')).toBe('/c/pinewick/juniors/files/2/gig.png?width=960&form=jpeg')
    expect(inCard.className).toBe('focus-topright')
    // The words beside it say whose picture it is.
    expect(inCard.getAttribute('alt')).toBe('')
    expect(document.querySelector('.card source')!.getAttribute('srcset')).toContain('gig.png?width=480 480w')
    expect(document.querySelector('.card-hatch')!.className).toContain('hue-timber')
    await user.click(press(/Boat lab/))
    expect(screen.getByRole('region', { name: 'Boat lab' }).querySelector('img')!.getAttribute('alt')).toBe('A gig under oars')
  })

  test('a picture fills its day in the month where the edition wants it', () => {
    const pictured = { ...lab, picture: { address: 'files/2/gig.png', alternative: '', focus: 'centre' as const } }
    open(pageOf([pictured, quiz], edition({ view: 'month', picturesInMonth: true })))
    expect(document.querySelectorAll('.cell-picture img')).toHaveLength(1)
    cleanup()
    open(pageOf([pictured, quiz], edition({ view: 'month' })))
    expect(document.querySelectorAll('.cell-picture img')).toHaveLength(0)
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
