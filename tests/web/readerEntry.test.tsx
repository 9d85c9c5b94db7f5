// @vitest-environment happy-dom
import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test, vi } from 'vitest'
import { Reader } from '../../src/web/reader/Reader'
import { addresses, edition, entry, pageOf, part, serve } from './pageWorld'
import { eachHasAReader, lab, open, press, regatta, week } from './readerWorld'

eachHasAReader()

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

  test('says what is due as due, and calls a link without words by its kind', async () => {
    const due = entry('Essay', '2026-11-24 17:00-17:00', {
      kind: 'deadline',
      links: [
        { label: '', url: 'https://forms.example/essay', kind: 'signUp' },
        { label: '', url: 'https://pinewick.example/essay', kind: 'website' },
      ],
    })
    const user = open(pageOf([due]))
    await user.click(press(/17:00 Essay/))
    const details = screen.getByRole('region', { name: 'Essay' })
    expect(details.textContent).toContain('due Tuesday')
    expect(
      within(details)
        .getAllByRole('link')
        .slice(0, 2)
        .map((link) => link.textContent),
    ).toEqual(['Sign up', 'pinewick.example'])
  })

  test('tells all that its readers may know, with links that lead out', async () => {
    const full = entry('Open evening', '2026-11-24 18:00-20:00', {
      category: { id: '1', name: 'Meeting', colour: 'kelp' },
      description: '<p>Bring <b>oilskins</b></p>',
      contact: 'office',
      links: [{ label: 'Sign up', url: 'https://pinewick.example/sign-up' }],
      files: [{ name: 'plan.pdf', type: 'application/pdf', size: 5, address: 'files/1/plan.pdf', said: 'PDF, 1 kB' }],
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
    expect(details.getByText('PDF, 1 kB')).toBeTruthy()
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
    expect(screen.getAllByText('Storm week')).toHaveLength(1)
    expect(screen.getByText('Storm week').closest('li')!.textContent).toMatch(/^until Fri,? 27 Nov/)
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
    const voyage = entry('Voyage', '2026-10-30/2026-11-01')
    serve({ '.json?month=all': part('all', [voyage, ...week, entry('Lamp parade', '2026-12-04 17:00-18:00')], edition()) })
    const user = open(pageOf(week, edition({}, { to: '2026-12-19' })))
    await user.click(press('Print months'))
    const sheet = () => document.querySelector<HTMLElement>('.sheet')!
    await vi.waitFor(() => expect(sheet()).not.toBeNull())
    expect(await screen.findAllByText('Lamp parade')).toHaveLength(2)
    expect([...sheet().querySelectorAll('caption')].map((name) => name.textContent)).toEqual(['November 2026', 'December 2026'])
    expect(sheet().querySelector('button')).toBeNull()
    const november = sheet().querySelector('table')!
    expect([...november.querySelectorAll('td')].filter((day) => day.textContent?.includes('Voyage'))).toHaveLength(2)
    expect(printed).toHaveBeenCalledTimes(1)
    window.dispatchEvent(new Event('afterprint'))
    expect(await vi.waitFor(() => (expect(document.querySelector('.sheet')).toBeNull(), true))).toBe(true)
    await user.click(press('Print a list'))
    await vi.waitFor(() => expect(sheet()).not.toBeNull())
    expect([...sheet().querySelectorAll('.line-title')].filter((title) => title.textContent === 'Regatta')).toHaveLength(1)
    expect(sheet().querySelector('.is-today')).toBeNull()
  })

  test('on paper: a year on one sheet, without what is on all year', async () => {
    vi.stubGlobal('print', vi.fn())
    const year = {
      from: '2026-09-01',
      to: '2027-09-01',
      terms: [],
      breaks: [{ name: 'Winter break', first: '2026-12-19', last: '2027-01-04' }],
      often: [{ id: lab.id.slice(0, lab.id.lastIndexOf('/')), title: 'Boat lab', plates: ['PW'], dates: 40 }],
    }
    serve({ '.json?month=all': { ...part('all', week, edition()), years: [year] } })
    const user = open(pageOf(week))
    await user.click(press('Print the year (A3)'))
    const sheet = await screen.findByRole('article')
    expect(sheet.querySelectorAll('section')).toHaveLength(12)
    expect(sheet.textContent).toContain('Year 2026/27')
    expect(sheet.textContent).toContain('Winter break')
    expect([...sheet.querySelectorAll('.wall-line')].some((line) => line.textContent?.includes('Boat lab'))).toBe(false)
    expect([...sheet.querySelectorAll('.wall-line')].some((line) => line.textContent?.includes('Regatta'))).toBe(true)
    expect(sheet.textContent).toContain('Boat lab (40 dates)')
  })
})
