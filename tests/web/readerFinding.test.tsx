// @vitest-environment happy-dom
import { cleanup, screen, within } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { addresses, edition, entry, pageOf, part, port, serve, starboard } from './pageWorld'
import { cell, eachHasAReader, lab, open, press, titles, week } from './readerWorld'

eachHasAReader()

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
    expect(press(/^Go to a date/).textContent).toBe('4 Dec 2026')
  })

  test('an edition that ends leads no further, and one that began later no earlier', () => {
    open(pageOf(week, edition({}, { from: '2026-11-02', to: '2026-12-01' })))
    for (const name of ['Later', 'Earlier']) {
      expect(press(name).getAttribute('aria-disabled')).toBe('true')
      expect(press(name).hasAttribute('href')).toBe(false)
      // Whoever came there with the Tab key stays there.
      press(name).focus()
      expect(document.activeElement).toBe(press(name))
    }
  })

  test('a day is chosen from a small month, by the mouse and by the keyboard, within the days of the edition', async () => {
    serve({ '.json?month=2026-12': december('Lamp parade') })
    const user = open(pageOf(week, edition({}, { from: '2026-11-10', to: '2026-12-12' })))
    await user.click(press('Go to a date: 24 Nov 2026'))
    expect(document.activeElement).toBe(
      within(screen.getByRole('group', { name: 'Go to a date' })).getByRole('button', { pressed: true }),
    )
    const days = () => within(screen.getByRole('group', { name: 'Go to a date' }))
    expect(days().getByRole('button', { name: 'Monday 9 November' }).getAttribute('aria-disabled')).toBe('true')
    await user.keyboard('{PageDown}')
    expect(days().getByText('December 2026')).toBeTruthy()
    // No further than the edition goes.
    await user.keyboard('{PageDown}')
    expect(days().getByText('December 2026')).toBeTruthy()
    await user.click(days().getByRole('button', { name: 'Sunday 13 December' }))
    expect(location.search).toBe('')
    await user.click(days().getByRole('button', { name: 'Friday 4 December' }))
    expect(location.search).toBe('?date=2026-12-04')
    expect(document.activeElement).toBe(press('Go to a date: 4 Dec 2026'))
    await user.keyboard('{Enter}{ArrowDown}{ArrowRight}')
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Saturday 12 December')
    await user.keyboard('{Escape}')
    expect(screen.queryByRole('group', { name: 'Go to a date' })).toBeNull()
    expect(document.activeElement).toBe(press('Go to a date: 4 Dec 2026'))
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
    expect(location.search).toBe('?only=port-watch')
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
    const panel = within(await screen.findByRole('region', { name: 'Subscribe' }))
    expect(panel.getByText(/Only the calendars that you have chosen/)).toBeTruthy()
    expect(panel.getByLabelText<HTMLInputElement>(/this address/).value).toBe(`${addresses.feed}?only=port-watch`)
    const leadsTo = (name: RegExp) => panel.getByRole('link', { name }).getAttribute('href')
    expect(leadsTo(/calendar program/)).toBe(`${addresses.webcal}?only=port-watch`)
    expect(leadsTo(/by mail/)).toBe(`${addresses.page}/mail?only=port-watch`)
    await user.type(panel.getByLabelText('From'), '2026-12-01')
    await user.type(panel.getByLabelText('To'), '2026-12-20')
    expect(leadsTo(/Calendar file/)).toBe(`${addresses.page}/snapshot.ics?from=2026-12-01&to=2026-12-20&only=port-watch`)
    expect(leadsTo(/Table/)).toBe(`${addresses.page}.csv?from=2026-12-01&to=2026-12-20&only=port-watch`)
    await user.click(panel.getByRole('button', { name: 'Copy the feed link' }))
    expect(await navigator.clipboard.readText()).toBe(`${addresses.feed}?only=port-watch`)
    expect(panel.getByRole('status').textContent).toBe('Copied.')
    await user.keyboard('{Escape}')
    expect(document.activeElement).toBe(press('Subscribe'))
  })
})

describe('what an entry is about', () => {
  const trip = entry('Sail to the skerries', '2026-11-25 09:00-15:00', { tags: ['away'] })
  const exam = entry('Tide-table quiz', '2026-11-26 09:00-10:00', {
    category: { id: 'a', name: 'Assessment', colour: 'plum' },
  })

  test('narrows the page, its address and the feed of it', async () => {
    const user = open(pageOf([...week, trip, exam]))
    await user.click(press('Assessment'))
    expect(press('Assessment').getAttribute('aria-pressed')).toBe('true')
    expect(titles()).toContain('Tide-table quiz')
    expect(titles()).not.toContain('Boat lab')
    await user.click(press('away'))
    expect(titles()).toContain('Sail to the skerries')
    expect(location.search).toBe('?about=Assessment&about=away')
    await user.click(press('Subscribe'))
    const panel = within(await screen.findByRole('region', { name: 'Subscribe' }))
    expect(panel.getByText('Only what is about Assessment, away.')).toBeTruthy()
    expect(panel.getByLabelText<HTMLInputElement>(/this address/).value).toBe(`${addresses.feed}?about=Assessment&about=away`)
    await user.click(press('everything'))
    expect(titles()).toContain('Boat lab')
    expect(location.search).toBe('')
  })

  test('is offered only where there is a choice', () => {
    open(pageOf([...week, exam]))
    expect(screen.queryByRole('group', { name: 'About' })).toBeNull()
  })
})

describe('what the front page led to', () => {
  test('a subscription stands open, and closes', async () => {
    history.replaceState(null, '', '?open=subscribe')
    const user = open(pageOf(week))
    await user.click(within(await screen.findByRole('region', { name: 'Subscribe' })).getByRole('button', { name: 'Close' }))
    expect(screen.queryByRole('region', { name: 'Subscribe' })).toBeNull()
  })

  test('words that were looked for are looked for on all days', async () => {
    history.replaceState(null, '', '?find=boat')
    serve({ '.json?month=all': part('all', week, edition()) })
    open(pageOf(week))
    expect(within(await screen.findByRole('region', { name: 'Search' })).getAllByText(/Boat lab/).length).toBeGreaterThan(0)
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
        changes: [
          change('moved', { more: 3 }),
          change('cancelled'),
          change('relocated'),
          change('takesPlace'),
          change('new'),
          change('removed'),
        ],
        holdsBack: true,
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
    expect(lines[4]).toMatch(/new: .*24 Nov/)
    expect(lines[5]).toMatch(/removed .*23 Nov/)
    expect(within(panel).getByText('More has changed than is listed here.')).toBeTruthy()
    expect(within(panel).getByRole('link', { name: 'Atom' }).getAttribute('href')).toBe(addresses.atom)
    expect(panel.nextElementSibling?.className).toBe('edition-foot')
    await user.click(within(panel).getByRole('button', { name: 'Close' }))
    expect(screen.queryByRole('region', { name: 'Changed lately' })).toBeNull()
    expect(document.activeElement).toBe(press('Changed lately'))
  })

  test('says when nothing was, and when it cannot be known', async () => {
    serve({ '/changed.json': { changes: [], holdsBack: false } })
    const user = open(pageOf(week))
    await user.click(press('Changed lately'))
    expect(await screen.findByText('Nothing came, went, moved or was cancelled in the last 14 days.')).toBeTruthy()
    await user.click(press('Changed lately'))
    serve({})
    await user.click(press('Changed lately'))
    expect(await screen.findByText(/could not be fetched/)).toBeTruthy()
    // What is held back is not said to be nothing.
    serve({ '/changed.json': { changes: [], holdsBack: true } })
    await user.click(press('Changed lately'))
    await user.click(press('Changed lately'))
    expect(await screen.findByText('More has changed than is listed here.')).toBeTruthy()
    expect(screen.queryByText(/Nothing came/)).toBeNull()
    serve({})
    await user.click(press('Changed lately'))
    await user.click(press('Changed lately'))
    // It is asked for once more by itself.
    serve({ '/changed.json': { changes: [change('cancelled')], holdsBack: false } })
    const panel = screen.getByRole('region', { name: 'Changed lately' })
    expect((await within(panel).findByRole('listitem', {}, { timeout: 6_000 })).textContent).toMatch(/cancelled/)
  }, 10_000)
})
