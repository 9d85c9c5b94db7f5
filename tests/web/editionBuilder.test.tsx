// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { describe, expect, test, vi } from 'vitest'
import type { EditionDraft } from '../../src/web/desk/types'
import { EditionPage } from '../../src/web/desk/editions/EditionPage'
import { answer, choose, draftSent, edition, port, preview, refusal, sent, show, staff, starboard } from './deskWorld'

const build = async (own: Record<string, unknown> = {}, stored = edition()) => {
  const asked = answer({ 'GET /editions/juniors': stored, ...own })
  const shown = show('/editions/:id', <EditionPage />, '/editions/juniors')
  await screen.findByRole('button', { name: /everything of Port Watch/ })
  return { asked, ...shown }
}

const step = (name: RegExp) => within(screen.getByRole('region', { name }))

describe('an edition that is changed', () => {
  test('cannot be saved before anything is, says how it went, and is undone', async () => {
    const stored = edition()
    const { asked, user } = await build({
      'PUT /editions/juniors': (body: { edition: EditionDraft; version: number }) =>
        edition(body.edition, { version: body.version + 1 }),
    })
    const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save' })
    expect(save().disabled).toBe(true)
    await user.selectOptions(choose('Opens as'), 'list')
    await user.click(save())
    expect(await screen.findByText(/Juniors for families is saved/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /^Undo/ }))
    await vi.waitFor(() => expect(sent(asked, 'PUT /editions/juniors')).toHaveLength(2))
    const [first, second] = sent(asked, 'PUT /editions/juniors') as { edition: EditionDraft; version: number }[]
    expect([first!.edition.look?.view, first!.version]).toEqual(['list', stored.version])
    expect([second!.edition.look?.view, second!.version]).toEqual(['month', stored.version + 1])
  })

  test('a source is left out, narrowed by category, tag and word, and taken whole again', async () => {
    const { asked, user } = await build({ 'PUT /editions/juniors': (body: { edition: EditionDraft }) => edition(body.edition) })
    await user.click(screen.getByRole('button', { name: 'Leave out Starboard Watch' }))
    await user.click(screen.getByRole('button', { name: /everything of Port Watch/ }))
    const filter = within(screen.getByRole('group', { name: 'What of Port Watch' }))
    await user.selectOptions(filter.getByLabelText('Only or without'), 'except')
    await user.click(filter.getByLabelText(/Assessment/))
    await user.type(filter.getByLabelText('Tags'), 'practical, away')
    await user.type(filter.getByLabelText(/Words in title/), 'staff')
    expect(screen.getByRole('button', { name: /without Assessment, #practical, #away, “staff” of Port Watch/ })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(draftSent(sent(asked, 'PUT /editions/juniors')[0]).sources).toEqual([
      { calendarId: 'pw', filter: { mode: 'except', categories: ['exams'], tags: ['practical', 'away'], text: 'staff' } },
    ])
    await user.click(filter.getByRole('button', { name: 'Take everything again' }))
    expect(screen.getByRole('button', { name: /everything of Port Watch/ })).toBeTruthy()
  })

  test('its window is counted, dated, and what cannot be is refused where it stands', async () => {
    const { user } = await build({
      'POST /editions/preview': (body: { edition: EditionDraft }) =>
        body.edition.window?.count === 0
          ? refusal(422, 'No.', { 'window.count': ['The number of weeks has to be 1 or more.'] })
          : preview,
    })
    await user.selectOptions(choose('To when'), 'weeks')
    const count = screen.getByLabelText<HTMLInputElement>('How many')
    expect(count.value).toBe('2')
    await user.clear(count)
    await user.type(count, '0')
    expect(await screen.findByText('The number of weeks has to be 1 or more.')).toBeTruthy()
    await user.selectOptions(choose('From when'), 'date')
    expect(screen.getByLabelText('First day')).toBeTruthy()
    await user.selectOptions(choose('To when'), 'date')
    expect(screen.getByLabelText('Last day')).toBeTruthy()
    await user.selectOptions(choose('From when'), 'now')
    expect(screen.getByLabelText<HTMLInputElement>('with what is over').disabled).toBe(true)
  })

  test('shows fewer fields than the detail allows, and all of them is no choice', async () => {
    const { asked, user } = await build({ 'PUT /editions/juniors': (body: { edition: EditionDraft }) => edition(body.edition) })
    await user.click(screen.getByLabelText('contact'))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await user.click(screen.getByLabelText('contact'))
    await vi.waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(false))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await vi.waitFor(() => expect(sent(asked, 'PUT /editions/juniors')).toHaveLength(2))
    const [fewer, all] = sent(asked, 'PUT /editions/juniors').map((body) => draftSent(body).fields)
    expect([fewer, all]).toEqual([['place', 'category', 'picture', 'description', 'links', 'files', 'people'], null])
  })

  test('titles and lines are put together from pieces', async () => {
    const { asked, user } = await build({ 'PUT /editions/juniors': (body: { edition: EditionDraft }) => edition(body.edition) })
    const title = within(screen.getByRole('group', { name: 'A title' }))
    await user.selectOptions(title.getByLabelText('Add to a title'), 'place')
    await user.click(title.getByRole('button', { name: 'Take out plate' }))
    const lineField = within(screen.getByRole('group', { name: 'A line of a list' }))
    await user.click(lineField.getByRole('button', { name: 'plate: move back' }))
    await user.selectOptions(lineField.getByLabelText('Add to a line of a list'), 'text')
    await user.clear(lineField.getByLabelText('Text between'))
    await user.type(lineField.getByLabelText('Text between'), ' – ')
    await user.selectOptions(choose('Lists are grouped by'), 'calendar')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    const saved = draftSent(sent(asked, 'PUT /editions/juniors')[0])
    expect(saved.title?.map((part) => part.piece ?? part.text)).toEqual([' ', 'title', 'place'])
    expect(saved.look?.line?.map((part) => part.piece ?? part.text)).toEqual(['plate', 'time', 'title', 'place', ' – '])
    expect(saved.look?.grouping).toBe('calendar')
    expect(await screen.findByText('PW SW Boat lab')).toBeTruthy()
  })

  test('colours that cannot be read are refused with their ratio, where they are chosen', async () => {
    const sentence = 'Text on the page has a contrast of 2.8 to 1. At least 4.5 is needed to be readable.'
    const { user } = await build({ 'POST /editions/preview': refusal(422, 'No.', { 'look.colours.text': [sentence] }) })
    expect(await screen.findByText(sentence)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Choose colours one by one …' }))
    expect(screen.getAllByLabelText<HTMLInputElement>('text').find((field) => field.type === 'color')?.value).toBe('#1b2a33')
  })

  test('says the contrast of what can be read, light and dark', async () => {
    const { user } = await build()
    expect(await screen.findByText('contrast 14.2, dark 11.9')).toBeTruthy()
    await user.selectOptions(choose('Light or dark'), 'light')
    expect(screen.getByText('contrast 14.2')).toBeTruthy()
  })

  test('every setting of its look is sent as it was chosen', async () => {
    const { asked, user } = await build({ 'PUT /editions/juniors': (body: { edition: EditionDraft }) => edition(body.edition) })
    await user.click(screen.getByRole('button', { name: /Week, clock, language/ }))
    const wanted = {
      'Weeks begin': '7',
      Times: 'twentyFour',
      Dates: 'long',
      Language: 'de',
      'Text size': 'large',
      Density: 'tight',
      Corners: 'round',
      'A click on an entry': 'page',
    }
    for (const [label, value] of Object.entries(wanted)) await user.selectOptions(choose(label), value)
    await user.type(screen.getByLabelText('When nothing is on'), 'Ashore.')
    await user.type(screen.getByLabelText('When it cannot load'), 'Ring us.')
    await user.click(screen.getByLabelText('way to other days'))
    await user.click(within(screen.getByRole('group', { name: /may switch to/ })).getByLabelText('cards'))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(draftSent(sent(asked, 'PUT /editions/juniors')[0]).look).toMatchObject({
      firstDayOfWeek: 7,
      clock: 'twentyFour',
      dates: 'long',
      language: 'de',
      size: 'large',
      density: 'tight',
      corner: 'round',
      onEntry: 'page',
      emptyText: 'Ashore.',
      failedText: 'Ring us.',
      navigation: false,
      views: ['month', 'week', 'list', 'cards'],
    })
  })

  test('what is closed to its readers is named there, with the way to open it', async () => {
    const missing = { calendarId: 'stf', name: 'Staff room', plate: 'STF', colour: 'madder', entries: 9, mayOpen: true }
    const { user } = await build(
      {
        'POST /editions/preview': { ...preview, closed: [missing] },
        'POST /calendars/stf/disclosure/preview': [
          {
            audience: 'everyone',
            was: 'nothing',
            becomes: 'headline',
            revealed: 9,
            withEmail: { count: 1, events: [{ id: 'e', title: 'Rota' }] },
            withPhone: { count: 0, events: [] },
            withFile: { count: 0, events: [] },
            withNames: { count: 0, events: [] },
            hidden: 0,
            drafts: 2,
            empties: [],
            editions: [],
          },
        ],
      },
      edition({ sources: [{ calendarId: 'pw' }, { calendarId: 'stf' }] }),
    )
    const sources = step(/Sources/)
    expect(await sources.findByText('Staff room is closed to everyone.')).toBeTruthy()
    expect(sources.getByText(/9 dates are missing/)).toBeTruthy()
    await user.click(sources.getByRole('button', { name: 'Open it …' }))
    const dialog = within(sources.getByRole('dialog', { name: 'Open Staff room to everyone' }))
    await user.click(dialog.getByRole('button', { name: 'Headline' }))
    expect(await dialog.findByText('9 events become public.')).toBeTruthy()
    expect(dialog.getByText(/1 has an e-mail address in it/)).toBeTruthy()
    expect(dialog.getByText(/2 drafts and waiting events stay inside/)).toBeTruthy()
    await user.click(sources.getByRole('button', { name: 'Leave it out' }))
    expect(sources.queryByText('Staff room is closed to everyone.')).toBeNull()
  })

  test('whoever may not open it is told who can', async () => {
    const missing = { calendarId: 'stf', name: 'Staff room', plate: 'STF', colour: 'madder', entries: 1, mayOpen: false }
    await build(
      { 'POST /editions/preview': { ...preview, closed: [missing] } },
      edition({ sources: [{ calendarId: 'pw' }, { calendarId: 'stf' }] }),
    )
    expect(await screen.findByText(/1 date is missing.*An administrator can open it/s)).toBeTruthy()
  })

  test('its snippets are copied, and a plain frame has the size that was written', async () => {
    const { user } = await build()
    const delivery = step(/Delivery/)
    await user.click(delivery.getByRole('button', { name: 'Copy the snippet' }))
    expect(await navigator.clipboard.readText()).toContain('data-valtro=')
    await user.click(delivery.getByRole('button', { name: 'Plain frame' }))
    const width = delivery.getByLabelText('Width')
    await user.clear(width)
    await user.type(width, '80%')
    expect(delivery.getByLabelText<HTMLTextAreaElement>('Plain frame').value).toContain('width="80%" height="640"')
    await user.type(width, ' wide')
    expect(delivery.getByText(/Write the width as pixels or a percentage/)).toBeTruthy()
    await user.click(delivery.getByRole('button', { name: 'Feeds' }))
    expect(delivery.getByLabelText<HTMLInputElement>('Link that opens the program').value).toMatch(/^webcal:/)
    await user.click(delivery.getByRole('button', { name: 'QR code' }))
    expect(delivery.getAllByRole('link', { name: 'PNG' }).map((link) => link.getAttribute('href'))).toEqual([
      '/api/editions/juniors/code.png?of=page',
      '/api/editions/juniors/code.png?of=feed',
    ])
  })

  test('which sites may hold it in a frame is a list, one on each line', async () => {
    const { asked, user } = await build({ 'PUT /editions/juniors': (body: { edition: EditionDraft }) => edition(body.edition) })
    await user.click(screen.getByLabelText('any site may hold it in a frame'))
    await user.type(screen.getByLabelText(/Only these sites/), 'https://families.example{Enter}https://club.example')
    await user.tab()
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(draftSent(sent(asked, 'PUT /editions/juniors')[0]).sites).toEqual(['https://families.example', 'https://club.example'])
  })

  test('a secret address is replaced, and the new one stands there', async () => {
    const secret = edition({ audience: 'link' }, { linkMadeAt: '2026-11-01T10:00:00Z' })
    const { user, asked } = await build(
      {
        'POST /editions/juniors/link': {
          madeAt: '2026-11-24T10:00:00Z',
          page: 'https://dates.example/s/new',
          embed: null,
          feed: null,
          showsNothing: false,
        },
      },
      secret,
    )
    await user.click(screen.getByRole('button', { name: 'Replace the secret address …' }))
    await user.click(screen.getByRole('button', { name: 'Replace the address' }))
    expect(await screen.findByText(/The secret address was replaced/)).toBeTruthy()
    expect(sent(asked, 'GET /editions/juniors')).toHaveLength(2)
  })

  test('a change of audience says that its address changes, and members read it signed in', async () => {
    const { user } = await build()
    await user.selectOptions(choose('For whom'), 'members')
    expect(screen.getByText(/Members read it under Editions/)).toBeTruthy()
    expect(screen.getByText(/Its address changes with whom it is for/)).toBeTruthy()
  })

  test('is removed with the way back', async () => {
    const { asked, user } = await build({ 'DELETE /editions/juniors': null, 'POST /editions/juniors/restore': edition() })
    await user.click(screen.getByRole('button', { name: 'Remove' }))
    expect(await screen.findByText('another screen')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /^Undo/ }))
    await vi.waitFor(() => expect(sent(asked, 'POST /editions/juniors/restore')).toHaveLength(1))
  })

  test('an undo that is refused says why', async () => {
    const { user } = await build({
      'DELETE /editions/juniors': null,
      'POST /editions/juniors/restore': refusal(409, 'Another edition has its address by now.'),
    })
    await user.click(screen.getByRole('button', { name: 'Remove' }))
    await user.click(await screen.findByRole('button', { name: /^Undo/ }))
    expect(await screen.findByText('Another edition has its address by now.')).toBeTruthy()
  })

  test('the standard edition of a calendar keeps its name, its calendar and its audience', async () => {
    await build(
      {},
      edition({ name: null, sources: [{ calendarId: 'pw' }] }, { name: 'Port Watch', isStandard: true, calendarId: 'pw' }),
    )
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Port Watch')
    expect(screen.queryByLabelText('For whom')).toBeNull()
    expect(screen.queryByRole('button', { name: /Leave out/ })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull()
    expect(screen.queryByRole('button', { name: /Add calendars/ })).toBeNull()
  })

  test('the preview is the page itself at four widths', async () => {
    const { user } = await build()
    const frame = await screen.findByTitle('Juniors for families as readers get it')
    expect(frame.getAttribute('src')).toBe(preview.path)
    expect(frame.getAttribute('width')).toBe('390')
    await user.click(screen.getByRole('button', { name: 'Sidebar 300' }))
    expect(frame.getAttribute('width')).toBe('300')
  })

  test('one that is not there, or not for the person, says so', async () => {
    answer({ 'GET /editions/juniors': refusal(404, 'There is no such edition.') })
    show('/editions/:id', <EditionPage />, '/editions/juniors')
    expect(await screen.findByText(/There is no such edition/)).toBeTruthy()
  })

  test('a calendar that the person may not see is not named', async () => {
    await build({ 'GET /calendars': [port, starboard] }, edition({ sources: [{ calendarId: 'pw' }, { calendarId: staff.id }] }))
    expect(screen.queryByText('Staff room')).toBeNull()
  })
})
