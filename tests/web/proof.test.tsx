// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { NeedsPage } from '../../src/web/desk/proof/NeedsPage'
import { ProofPage } from '../../src/web/desk/proof/ProofPage'
import { TracePage } from '../../src/web/desk/proof/TracePage'
import type { Finding, Needs, Proof, Remedy, Trace } from '../../src/web/desk/types'
import { answer, port, refusal, sent, show, SignedIn } from './deskWorld'

const nowhere: Remedy = {
  way: 'edition',
  eventId: null,
  date: null,
  calendarId: null,
  sourceId: null,
  day: null,
  act: null,
  setting: null,
}

const closed: Finding = {
  kind: 'sourceClosed',
  about: 'pw',
  severity: 'keepsFromReaders',
  title: 'Port Watch shows everyone nothing',
  text: '64 dates of the coming year in this edition reach nobody.',
  where: '',
  since: null,
  putOff: null,
  remedies: [
    { ...nowhere, way: 'opening', calendarId: port.id },
    { ...nowhere, way: 'setting', setting: 'leaveOut', calendarId: port.id },
  ],
}
const endless: Finding = {
  ...closed,
  kind: 'endlessSeries',
  about: 'lab',
  severity: 'toLookAt',
  title: 'Boat lab never ends',
  text: 'Subscribers see it for years.',
  where: 'Boat lab, 24 November 2026',
  remedies: [
    { ...nowhere, way: 'act', act: 'endWithPlan', eventId: 'lab', date: '2026-11-24T14:00:00' },
    { ...nowhere, way: 'event', eventId: 'lab', date: '2026-11-24T14:00:00' },
  ],
}

const proof = (part: Partial<Proof> = {}): Proof => ({
  id: 'one',
  name: 'Juniors for families',
  audience: 'everyone',
  calendarId: null,
  isInTheMaking: false,
  version: 3,
  entries: 2,
  findings: [closed, endless],
  weeks: [
    { first: '2026-11-23', entries: 2, isBreak: false, isHeavy: true },
    { first: '2026-11-30', entries: 0, isBreak: true, isHeavy: false },
  ],
  lines: [
    {
      eventId: 'lab',
      recurrenceId: '2026-11-24T14:00:00',
      start: '2026-11-24T14:00:00-04:00',
      end: '2026-11-24T15:30:00-04:00',
      allDay: false,
      title: 'Boat lab',
      place: 'Slipway',
      state: 'live',
      sources: [],
      lookAlikes: 1,
    },
  ],
  more: 1,
  wentOutAt: null,
  programs: 12,
  kinds: 48,
  ...part,
})

const trace: Trace = {
  editionId: 'one',
  edition: 'Juniors for families',
  audience: 'everyone',
  isStandard: false,
  isIn: false,
  verdicts: [
    { step: 'state', passes: true, said: 'It is in a state that the edition delivers.' },
    { step: 'filter', passes: false, said: 'It is on no calendar of the edition, or their filters leave it out.' },
  ],
  remedies: [nowhere],
}

const open = (own: Record<string, unknown>) => {
  const asked = answer(own)
  return {
    asked,
    ...show(
      '/editions/:id/proof',
      <SignedIn>
        <ProofPage />
      </SignedIn>,
      '/editions/one/proof',
    ),
  }
}

describe('the proof of an edition', () => {
  test('says what is wrong, the worst first, beside what readers get', async () => {
    open({
      'GET /editions/one/proof': proof(),
      'GET /editions/one/proof/changed': [
        {
          ...{ eventId: 'lab', recurrenceId: '2026-11-24T14:00:00', title: 'Boat lab', start: '2026-11-24T14:00:00-04:00' },
          sources: [port],
          ...{ allDay: false, change: 'moved', wasStart: '2026-11-24T13:00:00-04:00', more: 2, at: '2026-11-23T11:48:00Z' },
        },
        {
          ...{
            eventId: 'walk',
            recurrenceId: '2026-11-26',
            title: 'Survey walk',
            start: '2026-11-26',
            allDay: true,
            sources: [],
          },
          ...{ change: 'removed', wasStart: null, more: 0, at: '2026-11-20T11:48:00Z' },
        },
      ],
    })
    expect(await screen.findByText('keeps something from readers')).toBeTruthy()
    expect(screen.getAllByRole('heading', { level: 3 }).map((one) => one.textContent)).toEqual([closed.title, endless.title])
    const changed = (await screen.findByText(/1 entry changed when it last went out/)).closest('details')
    expect(changed?.textContent).toContain('Boat lab, Tue 24 Nov 14:00: was 13:00 (and 2 later dates)')
    expect(screen.getByText('1 more in the fortnight before').closest('details')?.open).toBe(false)
    expect(screen.getAllByText('was 13:00')).toHaveLength(2)
    expect(screen.getByText('with 1 look-alike')).toBeTruthy()
    expect(screen.getByRole('button', { name: /December 2026: 2 entries, break, too much/ })).toBeTruthy()
    expect(screen.getByText('1 more comes later.')).toBeTruthy()
    expect(screen.getByText(/12 programs fetched it on the busiest day of the last fortnight/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Let it go out' })).toBeNull()
  })

  test('shows what another setting would do before it is saved', async () => {
    const { asked, user } = open({
      'GET /editions/one/proof': proof(),
      'POST /editions/one/proof/setting/preview': {
        entries: 214,
        becomes: 150,
        leave: ['Boat lab, 1 December 2026'],
        moreLeave: 63,
        arrive: [],
        moreArrive: 0,
        gone: [closed.title],
        come: [],
        readers: 'everyone',
      },
      'POST /editions/one/proof/setting': {},
    })
    await user.click(await screen.findByRole('button', { name: /Leave it out …/ }))
    const dialog = within(screen.getByRole('dialog'))
    expect(await dialog.findByText('214 entries become 150.')).toBeTruthy()
    expect(dialog.getByText('Goes: Boat lab, 1 December 2026 and 63 more.')).toBeTruthy()
    expect(dialog.queryByText(/entries stay/)).toBeNull()
    expect(dialog.getByText(/Put right by it: Port Watch shows everyone nothing/)).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Save it' }))
    expect(sent(asked, 'POST /editions/one/proof/setting')).toEqual([{ setting: 'leaveOut', calendarId: port.id, version: 3 }])
  })

  test('lets a finding be with a reason, and says why a reason is needed', async () => {
    let tries = 0
    const { asked, user } = open({
      'GET /editions/one/proof': () =>
        proof({
          findings:
            tries < 2 ? [endless] : [{ ...endless, putOff: { reason: 'For ever', by: 'Ada', at: '2026-11-23T12:00:00Z' } }],
        }),
      'POST /editions/one/proof/put-off': () =>
        tries++ === 0
          ? refusal(400, 'The reason is empty.', { reason: ['The reason is empty. Write at least one character.'] })
          : null,
    })
    await user.click(await screen.findByRole('button', { name: 'Put off …' }))
    await user.click(screen.getByRole('button', { name: 'Put it off' }))
    expect(await screen.findByText(/Write at least one character/)).toBeTruthy()
    await user.type(screen.getByLabelText('Why it may stay so'), 'For ever')
    await user.click(screen.getByRole('button', { name: 'Put it off' }))
    await user.click(await screen.findByRole('button', { name: 'Show the one that is put off' }))
    expect(screen.getByText(/Put off by Ada .*: For ever/)).toBeTruthy()
    expect(sent(asked, 'POST /editions/one/proof/put-off')[1]).toEqual({
      kind: 'endlessSeries',
      about: 'lab',
      reason: 'For ever',
    })
    await user.click(screen.getByRole('button', { name: 'Take it up again' }))
    expect(sent(asked, 'POST /editions/one/proof/put-off')[2]).toEqual({ kind: 'endlessSeries', about: 'lab', reason: null })
  })

  test('of one in the making says what still keeps it from readers before it goes out', async () => {
    const { asked, user } = open({ 'GET /editions/one/proof': proof({ isInTheMaking: true }), 'POST /editions/one/let-out': {} })
    await user.click(await screen.findByRole('button', { name: 'Let it go out' }))
    const dialog = within(screen.getByRole('dialog'))
    expect(dialog.getByText('One thing still keeps something from its readers.')).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Let it go out all the same' }))
    expect(sent(asked, 'POST /editions/one/let-out')).toHaveLength(1)
  })

  test('says why a date is there, rule by rule', async () => {
    const { user } = open({
      'GET /editions/one/proof': proof({ findings: [] }),
      'GET /editions/one/trace': { ...trace, isIn: true, remedies: [], verdicts: trace.verdicts.slice(0, 1) },
    })
    expect(await screen.findByText('Nothing is wrong with it.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /why\?.*Boat lab/ }))
    expect(await screen.findByRole('heading', { name: 'Why “Boat lab” is there' })).toBeTruthy()
    expect(screen.getByText('It is in a state that the edition delivers.')).toBeTruthy()
  })

  test('that may not be seen says so', async () => {
    open({ 'GET /editions/one/proof': refusal(403, 'Only editors of its calendars compose it.') })
    expect(await screen.findByText('Only editors of its calendars compose it.')).toBeTruthy()
  })
})

describe('where a date goes', () => {
  test('is said of each edition, those that have it first, with the rule that decided', async () => {
    answer({
      'GET /events/lab/trace': {
        eventId: 'lab',
        recurrenceId: '2026-11-24T14:00:00',
        title: 'Boat lab',
        when: 'Tuesday 24 November 2026, 14:00–15:30',
        editions: [
          trace,
          { ...trace, editionId: 'two', edition: 'Next at school', isIn: true, verdicts: trace.verdicts.slice(0, 1) },
        ],
      },
    })
    show(
      '/events/:id/trace',
      <SignedIn>
        <TracePage />
      </SignedIn>,
      '/events/lab/trace',
    )
    expect(await screen.findByText(/Tuesday 24 November 2026/)).toBeTruthy()
    const said = screen.getAllByRole('heading', { level: 2 }).map((one) => one.textContent)
    expect(said).toEqual(['Next at school for everyone', 'Juniors for families for everyone'])
    expect(screen.getByText('Does not go there').parentElement?.textContent).toContain('on no calendar of the edition')
  })
})

describe('what needs somebody', () => {
  const needs = (part: Partial<Needs> = {}): Needs => ({
    findings: [],
    more: 0,
    counts: { keepsFromReaders: 0, toLookAt: 0, forInformation: 0 },
    toDecide: 0,
    failing: 0,
    ...part,
  })

  test('is all on one page: what is wrong with editions, what is to be decided, what asks', async () => {
    answer({
      'GET /needs': needs({
        findings: [
          {
            editions: ['Juniors', 'Almanac', 'Port Watch', 'Starboard Watch'].map((name) => ({ id: name, name })),
            finding: closed,
          },
        ],
        counts: { keepsFromReaders: 1, toLookAt: 0, forInformation: 4 },
        toDecide: 2,
        failing: 1,
      }),
      'GET /sources': [{ id: 'league', name: 'League', health: 'failing', problem: 'It asks for a password.' }],
      'GET /targets': [
        { id: 'club', name: 'Club', health: 'asks', asking: 3, problem: '' },
        { id: 'fine', name: 'Fine club', health: 'right', asking: 0, problem: '' },
      ],
    })
    show('/needs', <NeedsPage />)
    expect(await screen.findByText('2 changes wait for your decision')).toBeTruthy()
    expect(screen.getByText('1 thing has not gone out')).toBeTruthy()
    expect(await screen.findByText('It asks for a password.')).toBeTruthy()
    expect(await screen.findByText('3 things were changed there by somebody else.')).toBeTruthy()
    expect(screen.queryByText(/Fine club/)).toBeNull()
    expect(screen.getByRole('link', { name: /Almanac/ }).getAttribute('href')).toBe('/editions/Almanac/proof')
    expect(screen.queryByRole('link', { name: /Starboard/ })).toBeNull()
    expect(screen.getByText('and 1 more')).toBeTruthy()
    expect(screen.getByText(/4 things more are for information/)).toBeTruthy()
  })

  test('may be nothing', async () => {
    answer({ 'GET /needs': needs() })
    show('/needs', <NeedsPage />)
    expect(await screen.findByText('Nothing needs you.')).toBeTruthy()
  })
})
