// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import type { Disclosure, Opening } from '../../src/web/desk/types'
import { CalendarsPage } from '../../src/web/desk/calendars/CalendarsPage'
import { Frame } from '../../src/web/desk/Frame'
import { BinPage } from '../../src/web/desk/history/BinPage'
import { AuditList } from '../../src/web/desk/people/AuditList'
import { useSession } from '../../src/web/desk/session/queries'
import { seeAs } from '../../src/web/desk/seeAs'
import { answer, calendar, port, refusal, sent, session, show, staff } from './deskWorld'
import { moment } from './moment'

const opening: Opening = {
  audience: 'everyone',
  was: 'complete',
  becomes: 'complete',
  revealed: 0,
  withEmail: { count: 0, events: [] },
  withPhone: { count: 0, events: [] },
  withFile: { count: 0, events: [] },
  withNames: { count: 0, events: [] },
  hidden: 0,
  drafts: 0,
  empties: [],
  editions: [],
}

const cell = (name: RegExp) => screen.findByRole('button', { name })

/** As inside the frame, which shows screens only to whoever is signed in. */
function SignedIn({ children }: { children: React.ReactNode }) {
  return useSession().data ? children : null
}

describe('calendars against audiences', () => {
  test('a cell is opened after what it reveals was listed, with all that goes along, and undone', async () => {
    const asked = answer({
      'POST /calendars/stf/disclosure/preview': [
        { ...opening, audience: 'link', was: 'nothing', becomes: 'headline', revealed: 1 },
        {
          ...opening,
          was: 'nothing',
          becomes: 'headline',
          revealed: 9,
          withFile: { count: 3, events: [{ id: 'a', title: 'Rota' }] },
          withNames: { count: 0, events: [] },
          drafts: 1,
        },
      ],
      'PUT /calendars/stf/disclosure': (body: { disclosure: Disclosure; version: number }) => ({
        ...staff,
        disclosure: body.disclosure,
        version: body.version + 1,
      }),
    })
    const { user } = show('/calendars', <CalendarsPage />)
    await user.click(await cell(/Staff room, everyone: nothing/))
    const dialog = within(screen.getByRole('dialog', { name: 'Open Staff room to everyone' }))
    await user.click(dialog.getByRole('button', { name: 'Headline' }))
    expect(await dialog.findByText('9 events become public.')).toBeTruthy()
    expect(dialog.getByText('1 event becomes visible to those with the link.')).toBeTruthy()
    expect(dialog.getByText(/Then for those with the link too: headline./)).toBeTruthy()
    expect(dialog.getByText('1 draft or waiting event stays inside')).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Look at them' }))
    expect(dialog.getByRole('link', { name: 'Rota' }).getAttribute('href')).toBe('/events/a')
    expect(dialog.getByText('and 2 more')).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Open to everyone' }))
    expect(await screen.findByText('Staff room shows everyone titles, times and places.')).toBeTruthy()
    expect(sent(asked, 'PUT /calendars/stf/disclosure')[0]).toEqual({
      disclosure: { members: 'complete', link: 'headline', everyone: 'headline' },
      version: 3,
    })
    await user.click(screen.getByRole('button', { name: /^Undo/ }))
    expect(await screen.findByText('Staff room is shown as before.')).toBeTruthy()
    expect(sent(asked, 'PUT /calendars/stf/disclosure')[1]).toEqual({ disclosure: staff.disclosure, version: 4 })
  })

  test('closing says what goes empty and who fetched it', async () => {
    answer({
      'POST /calendars/pw/disclosure/preview': [
        {
          ...opening,
          becomes: 'nothing',
          hidden: 12,
          empties: [{ what: 'feed', programs: 7 }],
          editions: [{ id: 'j', name: 'Juniors', becomesEmpty: false, programs: 0 }],
        },
      ],
    })
    const { user } = show('/calendars', <CalendarsPage />)
    await user.click(await cell(/Port Watch, everyone: complete/))
    const dialog = within(screen.getByRole('dialog'))
    await user.click(dialog.getByRole('button', { name: 'Nothing' }))
    expect(await dialog.findByText('12 events out of sight for everyone.')).toBeTruthy()
    expect(
      dialog.getByText(/the feed will have nothing to show: 7 programs fetched it on the busiest of the last 7 days/),
    ).toBeTruthy()
    expect(dialog.getByText(/will be without it: nobody fetched it/)).toBeTruthy()
    expect(dialog.getByRole('button', { name: 'Close for everyone' })).toBeTruthy()
  })

  test('a refusal stays with the cell, and Escape leaves it as it is', async () => {
    const asked = answer({
      'POST /calendars/pw/disclosure/preview': [{ ...opening, becomes: 'times', hidden: 1 }],
      'PUT /calendars/pw/disclosure': refusal(409, 'Bo has changed this calendar meanwhile. Look at it again.'),
    })
    const { user } = show('/calendars', <CalendarsPage />)
    const button = await cell(/Port Watch, everyone: complete/)
    await user.click(button)
    await user.click(screen.getByRole('button', { name: 'Times' }))
    await screen.findByText('1 event less visible to everyone.')
    await user.click(screen.getByRole('button', { name: 'Show everyone less' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Bo has changed this calendar')
    await user.keyboard('{Escape}')
    expect(screen.queryByRole('dialog')).toBeNull()
    expect(document.activeElement).toBe(button)
    expect(sent(asked, 'PUT /calendars/pw/disclosure')).toHaveLength(1)
  })

  test('whoever manages nothing sees the table and can press nothing in it', async () => {
    answer({ 'GET /calendars': [calendar('PW', 'Port Watch', { mayManage: false, events: null })] })
    show('/calendars', <CalendarsPage />)
    const row = within(await screen.findByRole('row', { name: /Port Watch/ }))
    expect(row.queryByRole('button', { name: /everyone/ })).toBeNull()
    expect(row.getByText('–')).toBeTruthy()
  })

  test('says who keeps which, and keeps archived ones apart', async () => {
    answer({
      'GET /calendars': [
        calendar('PW', 'Port Watch', {
          requiresSignOff: true,
          keptBy: [
            { name: 'Bo Reed', role: 'editor' },
            { name: 'Cy Moss', role: 'contributor' },
          ],
        }),
        calendar('OLD', 'Last year', { isArchived: true }),
      ],
    })
    show('/calendars', <CalendarsPage />)
    expect(await screen.findByText('Bo, Cy (waits for sign-off)')).toBeTruthy()
    expect(within(screen.getByRole('region', { name: 'Archived calendars' })).getByText('Last year')).toBeTruthy()
  })

  test('without any calendar the first one is asked for', async () => {
    answer({ 'GET /calendars': [] })
    show(
      '/calendars',
      <SignedIn>
        <CalendarsPage />
      </SignedIn>,
    )
    expect(await screen.findByText('There is no calendar yet. Make the first one.')).toBeTruthy()
  })
})

describe('in front of every screen', () => {
  test('whoever is not signed in is asked to, and told what was wrong', async () => {
    const asked = answer({
      'GET /session': { ...session, person: null, organisation: null },
      'POST /session': refusal(401, 'The e-mail address or the password is not right.'),
    })
    const { user } = show('/plan', <Frame />)
    await user.click(await screen.findByRole('button', { name: 'Sign in' }))
    expect(await screen.findByText('Give your e-mail address.')).toBeTruthy()
    await user.type(screen.getByLabelText('E-mail address'), 'ada@pinewick.example')
    await user.type(screen.getByLabelText('Password'), 'wrong')
    await user.click(screen.getByRole('button', { name: 'Sign in' }))
    expect((await screen.findByRole('alert')).textContent).toContain('is not right')
    expect(screen.getByLabelText<HTMLInputElement>('E-mail address').value).toBe('ada@pinewick.example')
    expect(sent(asked, 'POST /session')).toEqual([{ email: 'ada@pinewick.example', password: 'wrong' }])
  })

  test('the bar names the screens that the person may use, and what waits for them', async () => {
    answer({ 'GET /sign-off/count': { toDecide: 2 } })
    show('/plan', <Frame />)
    const screens = within(await screen.findByRole('navigation', { name: 'Screens' }))
    expect(await screens.findByText(/2/)).toBeTruthy()
    expect(screens.getAllByRole('link').map((link) => link.textContent?.replace(/\d.*/, ''))).toEqual([
      'Plan',
      'Calendars',
      'Editions',
      'Intake',
      'Year plan',
      'Sign-off',
      'People',
    ])
  })

  test('whoever looks as everyone asks for everything so, is told, and can do nothing', async () => {
    const asked = answer({ 'GET /calendars?as=everyone': [port] })
    seeAs('everyone')
    show('/plan', <Frame />)
    const screens = within(await screen.findByRole('navigation', { name: 'Screens' }))
    expect(screens.queryByRole('link', { name: 'People' })).toBeNull()
    expect(asked.filter((one) => one.what.startsWith('GET')).every((one) => one.what.endsWith('as=everyone'))).toBe(true)
  })

  test('a server that is away is said, with another try', async () => {
    answer({})
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('away')))
    const { user } = show('/plan', <Frame />)
    expect(await screen.findByRole('heading', { name: 'Valtro cannot be reached' })).toBeTruthy()
    answer({})
    await user.click(screen.getByRole('button', { name: 'Try again' }))
    expect(await screen.findByRole('navigation', { name: 'Screens' })).toBeTruthy()
  })
})

describe('what was done', () => {
  const inBin = {
    calendarId: 'pw',
    by: 'Ada Brook',
    removedAt: moment,
    goneAt: '2027-02-22T10:00:00Z',
    version: 4,
  }

  test('events, calendars and editions come back from the bin, and a refusal is said', async () => {
    const asked = answer({
      'GET /bin': [{ ...inBin, id: 'lab', title: 'Boat lab', words: 'every Tuesday' }],
      'GET /calendars/bin': [{ ...inBin, id: 'old', name: 'Old watch', plate: 'OLD', colour: 'slate' }],
      'GET /editions/bin': [{ ...inBin, id: 'juniors', name: 'Juniors' }],
      'POST /bin/lab/restore': { actId: 'act' },
      'POST /editions/juniors/restore': refusal(409, 'Another edition is called “Juniors” now. Rename that one first.'),
    })
    const { user } = show(
      '/bin',
      <SignedIn>
        <BinPage />
      </SignedIn>,
    )
    const row = within(await screen.findByRole('row', { name: /Boat lab/ }))
    expect(row.getByText(/just now by Ada Brook/)).toBeTruthy()
    expect(row.getByText('22 February 2027')).toBeTruthy()
    await user.click(row.getByRole('button', { name: 'Restore' }))
    expect(await screen.findByText('“Boat lab” is back.')).toBeTruthy()
    expect(sent(asked, 'POST /bin/lab/restore?version=4')).toHaveLength(1)
    await user.click(screen.getByRole('button', { name: 'Restore Juniors' }))
    expect(await screen.findByText(/Another edition is called “Juniors” now/)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Restore Old watch' })).toBeTruthy()
  })

  test('an empty bin says so', async () => {
    answer({ 'GET /bin': [], 'GET /calendars/bin': [], 'GET /editions/bin': [] })
    show(
      '/bin',
      <SignedIn>
        <BinPage />
      </SignedIn>,
    )
    expect(await screen.findByText('The bin is empty.')).toBeTruthy()
  })

  test('the audit list says who did what in the organisation’s own time, and more when there is more', async () => {
    const act = (id: number) => ({
      id: `a${id}`,
      at: '2026-11-24T14:00:00Z',
      by: 'Ada Brook',
      act: 'opened' as const,
      subject: 'Port Watch',
      detail: 'to everyone',
    })
    const first = Array.from({ length: 100 }, (_, index) => act(index))
    const asked = answer({
      'GET /audit?': first,
      'GET /audit?before=a99': [{ ...act(100), act: 'sentBack' as const, subject: 'Lamp parade' }],
      'GET /audit?act=invited&': [],
    })
    const { user } = show(
      '/people',
      <SignedIn>
        <AuditList />
      </SignedIn>,
    )
    expect((await screen.findAllByText('24 Nov 2026, 10:00')).length).toBe(100)
    await user.click(screen.getByRole('button', { name: 'Older ones' }))
    expect(await screen.findByText('Lamp parade')).toBeTruthy()
    await user.selectOptions(screen.getByLabelText('Show'), 'invited')
    expect(await screen.findByText('Nothing of that kind was done yet.')).toBeTruthy()
    expect(asked.map((one) => one.what)).toContain('GET /audit?act=invited&')
  })
})
