// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import type { Member, People, Submission } from '../../src/web/desk/types'
import { ChangesProvider } from '../../src/web/desk/changes/Changes'
import { PeoplePage } from '../../src/web/desk/people/PeoplePage'
import { SignOffPage } from '../../src/web/desk/signoff/SignOffPage'
import { answer, calendar, port, refusal, sent, show } from './deskWorld'
import { moment } from './moment'

const hoursAgo = (hours: number) => new Date(Date.parse(moment) - hours * 3_600_000).toISOString()

function submission(title: string, part: Partial<Submission> = {}): Submission {
  return {
    id: title.toLowerCase().replaceAll(' ', '-'),
    kind: 'event',
    state: 'open',
    eventId: 'lab',
    calendarId: 'pw',
    title,
    proposer: 'Cy Moss',
    isYours: false,
    madeAt: hoursAgo(3),
    reason: '',
    decidedBy: null,
    decidedAt: null,
    mayDecide: true,
    version: 4,
    act: null,
    recurrenceId: null,
    scope: null,
    when: 'Tue 24 Nov, 14:00–15:30',
    differences: [],
    whoSees: [],
    problem: null,
    ...part,
  }
}

const signOff = (
  <ChangesProvider>
    <SignOffPage />
  </ChangesProvider>
)

describe('sign-off', () => {
  const waiting = [
    submission('Boat lab'),
    submission('Rowing', {
      kind: 'change',
      act: 'edit',
      scope: 'later',
      differences: [{ field: 'place', was: 'Slipway', is: 'Loft' }],
    }),
    submission('Regatta', { kind: 'placement' }),
    submission('Moved away', { kind: 'change', problem: 'The event was changed since. Cy has to look at it again.' }),
  ]

  test('says who wants what, where, since when, and who will see it', async () => {
    answer({
      'GET /sign-off': {
        toDecide: [
          submission('Boat lab', {
            whoSees: [{ audience: 'everyone', detail: 'headline', was: 'nothing', sentence: 'title, time and place' }],
          }),
          ...waiting.slice(1),
        ],
        yours: [],
      },
    })
    show('/sign-off', signOff)
    const lab = within(await screen.findByRole('article', { name: 'Boat lab' }))
    expect(lab.getByText(/Cy Moss made this event on Port Watch/)).toBeTruthy()
    expect(lab.getByText('3 hours ago')).toBeTruthy()
    expect(lab.getByText(/title, time and place/)).toBeTruthy()
    const rowing = within(screen.getByRole('article', { name: 'Rowing' }))
    expect(rowing.getByText(/wants to change this date and later ones on Port Watch/)).toBeTruthy()
    expect(rowing.getByText('Slipway')).toBeTruthy()
    expect(rowing.getByText('Loft')).toBeTruthy()
    expect(rowing.getByRole('link', { name: 'Change it first' }).getAttribute('href')).toBe('/events/lab?submission=rowing')
    const regatta = within(screen.getByRole('article', { name: 'Regatta' }))
    expect(regatta.getByText(/asks to show it on Port Watch/)).toBeTruthy()
    expect(regatta.queryByRole('link', { name: 'Change it first' })).toBeNull()
    const away = within(screen.getByRole('article', { name: 'Moved away' }))
    expect(away.getByText(/was changed since/)).toBeTruthy()
    expect(away.queryByRole('button', { name: 'Let it go out' })).toBeNull()
  })

  test('several go out at once, and each that cannot is named with the reason', async () => {
    const asked = answer({
      'GET /sign-off': { toDecide: waiting, yours: [] },
      'POST /sign-off/approve': [
        { id: 'boat-lab', title: 'Boat lab', problem: null, actId: 'a' },
        { id: 'rowing', title: 'Rowing', problem: null, actId: 'b' },
        { id: 'regatta', title: 'Regatta', problem: 'It was withdrawn.', actId: null },
      ],
    })
    const { user } = show('/sign-off', signOff)
    await user.click(await screen.findByLabelText('All'))
    await user.click(screen.getByRole('button', { name: 'Let 3 go out' }))
    expect(await screen.findByText('2 go out.')).toBeTruthy()
    expect(screen.getByText('“Regatta” is not approved: It was withdrawn.')).toBeTruthy()
    expect(sent(asked, 'POST /sign-off/approve')).toEqual([
      { items: ['boat-lab', 'rowing', 'regatta'].map((id) => ({ id, version: 4 })) },
    ])
  })

  test('one goes out with the way to undo it', async () => {
    answer({
      'GET /sign-off': { toDecide: waiting, yours: [] },
      'POST /sign-off/approve': [{ id: 'boat-lab', title: 'Boat lab', problem: null, actId: 'a' }],
    })
    const { user } = show('/sign-off', signOff)
    await user.click(
      within(await screen.findByRole('article', { name: 'Boat lab' })).getByRole('button', { name: 'Let it go out' }),
    )
    expect(await screen.findByText('“Boat lab” goes out.')).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Undo: “Boat lab” goes out.' })).toBeTruthy()
  })

  test('is sent back with a reason, which has to be given and is not lost', async () => {
    let tries = 0
    const asked = answer({
      'GET /sign-off': { toDecide: waiting.slice(0, 1), yours: [] },
      'POST /sign-off/boat-lab/send-back': () =>
        ++tries === 1 ? refusal(422, 'No.', { reason: ['The reason is missing. Say what should be different.'] }) : null,
    })
    const { user } = show('/sign-off', signOff)
    await user.click(await screen.findByRole('button', { name: 'Send it back …' }))
    await user.click(screen.getByRole('button', { name: 'Send it back' }))
    expect(await screen.findByText('The reason is missing. Say what should be different.')).toBeTruthy()
    const reason = screen.getByLabelText('What should be different?')
    expect(reason.getAttribute('aria-invalid')).toBe('true')
    await user.type(reason, 'Another day')
    await user.click(screen.getByRole('button', { name: 'Send it back' }))
    expect(await screen.findByText('“Boat lab” is sent back to Cy Moss.')).toBeTruthy()
    expect(sent(asked, 'POST /sign-off/boat-lab/send-back').at(-1)).toEqual({ reason: 'Another day' })
  })

  test('whoever hands things in sees where each stands, takes it up again or withdraws it', async () => {
    const asked = answer({
      'GET /calendars': [calendar('PW', 'Port Watch', { mayEdit: false, mayPublish: false, mayManage: false })],
      'GET /sign-off': {
        toDecide: [],
        yours: [
          submission('Boat lab', { isYours: true }),
          submission('Rowing', {
            isYours: true,
            state: 'sentBack',
            kind: 'change',
            act: 'edit',
            reason: 'Another day',
            decidedBy: 'Bo Reed',
            decidedAt: hoursAgo(1),
          }),
          submission('Regatta', { isYours: true, state: 'approved', decidedBy: 'Bo Reed', decidedAt: hoursAgo(1) }),
        ],
      },
      'POST /sign-off/boat-lab/withdraw': null,
    })
    const { user } = show('/sign-off', signOff)
    const rowing = within(await screen.findByRole('article', { name: 'Rowing' }))
    expect(rowing.getByText('Another day').tagName).toBe('Q')
    expect(rowing.getByText(/Sent back by Bo Reed/)).toBeTruthy()
    expect(rowing.getByRole('link', { name: 'Take it up again' }).getAttribute('href')).toBe('/events/lab?submission=rowing')
    expect(within(screen.getByRole('article', { name: 'Regatta' })).queryByRole('button')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Withdraw it' }))
    expect(await screen.findByText('“Boat lab” is withdrawn. It is a draft of yours again.')).toBeTruthy()
    expect(sent(asked, 'POST /sign-off/boat-lab/withdraw')).toHaveLength(1)
  })

  test('nothing that waits is said in words', async () => {
    answer({ 'GET /sign-off': { toDecide: [], yours: [] } })
    show('/sign-off', signOff)
    expect(await screen.findByText(/Nothing waits for you/)).toBeTruthy()
  })
})

describe('people', () => {
  const member = (name: string, part: Partial<Member> = {}): Member => ({
    id: name.toLowerCase().split(' ')[0]!,
    name,
    email: `${name.toLowerCase().split(' ')[0]}@pinewick.example`,
    isAdministrator: false,
    roles: [],
    lastSignInAt: null,
    version: 1,
    isYou: false,
    ...part,
  })

  const people: People = {
    members: [
      member('Ada Brook', { isAdministrator: true, isYou: true, lastSignInAt: hoursAgo(2) }),
      member('Bo Reed', { roles: [{ calendarId: 'pw', role: 'editor' }] }),
      member('Di Hall'),
    ],
    invitations: [
      {
        id: 'fay',
        email: 'fay@pinewick.example',
        isAdministrator: false,
        roles: [{ calendarId: 'sw', role: 'contributor' }],
        invitedBy: 'Ada Brook',
        invitedAt: hoursAgo(400),
        expiresAt: hoursAgo(64),
        isExpired: true,
      },
    ],
  }

  test('says what each may do, and when they were here last', async () => {
    answer({ 'GET /people': people })
    show('/people', <PeoplePage />)
    const row = (name: RegExp) => within(screen.getByRole('row', { name }))
    expect(await screen.findByText('Administrator')).toBeTruthy()
    expect(row(/^Ada Brook/).getByText('2 hours ago')).toBeTruthy()
    expect(await row(/Bo Reed/).findByText('PW')).toBeTruthy()
    expect(row(/Di Hall/).getByText('Member')).toBeTruthy()
    expect(row(/fay@/).getByText(/too old by now/)).toBeTruthy()
  })

  test('of many one is looked for by name, by what they may do, or by a calendar', async () => {
    const many = Array.from({ length: 12 }, (_, number) => member(`Crew${number} Hand`))
    answer({ 'GET /people': { ...people, members: [...people.members, ...many] } })
    const { user } = show('/people', <PeoplePage />)
    const find = await screen.findByRole('searchbox', { name: 'Find somebody' })
    const shown = () => screen.getAllByRole('rowheader').map((one) => one.textContent)
    await user.type(find, 'editor pw')
    expect(shown().slice(0, 1)).toEqual(['Bo Reed'])
    expect(screen.getByText('1 of 15')).toBeTruthy()
    await user.clear(find)
    await user.type(find, 'crew1')
    expect(screen.getByText('3 of 15')).toBeTruthy()
  })

  test('somebody is invited with a role on a calendar; a wrong address is said and kept', async () => {
    let tries = 0
    const asked = answer({
      'GET /people': people,
      'POST /people/invitations': () =>
        ++tries === 1 ? refusal(422, 'No.', { email: ['“gil” is no e-mail address. Write one like ada@pinewick.example.'] }) : {},
    })
    const { user } = show('/people', <PeoplePage />)
    await user.click(await screen.findByRole('button', { name: 'Invite somebody' }))
    const dialog = within(await screen.findByRole('dialog'))
    await user.type(dialog.getByLabelText('E-mail address'), 'gil')
    await user.click(dialog.getByRole('button', { name: 'Send the invitation' }))
    expect(await dialog.findByText(/is no e-mail address/)).toBeTruthy()
    expect(dialog.getByLabelText<HTMLInputElement>('E-mail address').value).toBe('gil')
    await user.type(dialog.getByLabelText('E-mail address'), '@pinewick.example')
    await user.click(dialog.getByRole('button', { name: 'Send the invitation' }))
    expect(await screen.findByText(/gil@pinewick.example is invited\. The link in the mail works once/)).toBeTruthy()
    expect(sent(asked, 'POST /people/invitations').at(-1)).toEqual({
      email: 'gil@pinewick.example',
      isAdministrator: false,
      roles: [],
    })
  })

  test('the last administrator is not removed, and the sentence says why', async () => {
    answer({
      'GET /people': people,
      'DELETE /people/ada': refusal(409, 'Ada Brook is the last administrator. Make somebody else one first.'),
    })
    const { user } = show('/people', <PeoplePage />)
    await user.click(await screen.findByRole('button', { name: 'Remove Ada Brook' }))
    const dialog = within(await screen.findByRole('dialog', { name: 'Remove Ada Brook?' }))
    await user.click(dialog.getByRole('button', { name: 'Remove Ada Brook' }))
    expect((await dialog.findByRole('alert')).textContent).toContain('is the last administrator')
  })

  test('an invitation is sent again or withdrawn, a password is set anew', async () => {
    const asked = answer({
      'GET /people': people,
      'POST /people/invitations/fay/again': {},
      'DELETE /people/invitations/fay': null,
      'POST /people/bo/password-reset': null,
    })
    const { user } = show('/people', <PeoplePage />)
    await user.click(await screen.findByRole('button', { name: 'Send again to fay@pinewick.example' }))
    expect(await screen.findByText(/The link in the old one does not work any more/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Withdraw the invitation of fay@pinewick.example' }))
    expect(await screen.findByText('The invitation of fay@pinewick.example is withdrawn.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'New password for Bo Reed' }))
    expect(await screen.findByText(/Bo Reed gets a mail/)).toBeTruthy()
    await vi.waitFor(() => expect(sent(asked, 'DELETE /people/invitations/fay')).toHaveLength(1))
  })

  test('whoever may not see it is told so', async () => {
    answer({ 'GET /calendars': [port], 'GET /people': refusal(403, 'Only administrators see who belongs here.') })
    show('/people', <PeoplePage />)
    expect(await screen.findByText(/Only administrators see who belongs here/)).toBeTruthy()
  })
})
