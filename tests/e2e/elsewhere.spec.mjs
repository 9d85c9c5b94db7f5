import { expect } from '@playwright/test'
import { expectAccessible, makeCalendar, makeEvents, send, signIn, site, test, thisWeek, valtro } from './valtro.mjs'

/** What somebody of the club does on their own server. */
const club = (request, what) => request.post(`${site}/club-page/${what}`)

const there = async (request, shelf = 'boathouse') =>
  [...new Set((await (await request.get(`${site}/club-page/${shelf}`)).json()).map((one) => one.title))].sort()

test('a calendar is written on the club’s server, asked about when somebody changes it there, and an event is chosen for another', async ({
  page,
  request,
}) => {
  await club(request, 'behaviour?to=Right')
  await club(request, 'boathouse/add?title=Varnish')
  await signIn(page)
  for (const { id } of await (await page.request.get('/api/targets')).json())
    await send(page, `/api/targets/${id}?keepsThere=true`, undefined, 'DELETE')
  const calendar = await makeCalendar(page)
  await makeEvents(page, calendar, ['Pier day', 'Rowing'], 4)

  await test.step('a server is looked at, one of its calendars is chosen', async () => {
    await page.goto(`/calendars/${calendar.id}/publishing`)
    await page.getByRole('link', { name: 'Write it into a calendar elsewhere' }).click()
    await page.getByLabel('Address of the server').fill(site)
    await page.getByLabel('User').fill('harbour')
    await page.getByLabel('Password').fill('wrong')
    await page.getByRole('button', { name: 'Find its calendars' }).click()
    await expect(page.getByText('does not accept this user and password')).toBeVisible()
    await page.getByLabel('Password').fill('lantern-oil')
    await page.getByRole('button', { name: 'Find its calendars' }).click()
    await page.getByLabel('Boathouse board').check()
    await expectAccessible(page, 'a server that is looked at')
    await page.getByLabel('Who reads the calendar there').selectOption('members')
    await page.getByRole('button', { name: 'Write it there' }).click()
    await expect(page.getByText('2 events stand there')).toBeVisible()
    expect(await there(request)).toEqual(['Pier day', 'Rowing', 'Varnish'])
  })

  await test.step('what somebody changed there is not written over before somebody says so', async () => {
    await club(request, 'boathouse/change?title=Pier day')
    await page.getByRole('button', { name: 'Look now' }).click()
    await expect(page.getByText('one event was changed there')).toBeVisible()
    await expect(page.getByText('Pier day (moved to the pier)')).toBeVisible()
    await expectAccessible(page, 'a calendar elsewhere that asks')
    await page.getByRole('button', { name: 'Write Pier day as it is here' }).click()
    await expect(page.getByText('Nobody changed there what comes from here.')).toBeVisible()
    expect(await there(request)).toEqual(['Pier day', 'Rowing', 'Varnish'])
  })

  await test.step('it fails, says why, and goes on', async () => {
    await club(request, 'behaviour?to=Fails')
    await page.getByRole('button', { name: 'Look now' }).click()
    await expect(page.getByText('The server there answers with error 503.').last()).toBeVisible()
    await page.goto('/work')
    await expect(page.getByText('writing “Boathouse board”')).toBeVisible()
    await page.goBack()
    await club(request, 'behaviour?to=Right')
    await page.getByRole('button', { name: 'Look now' }).click()
    await expect(page.getByText('2 events stand there')).toBeVisible()
  })

  await test.step('only what is chosen: in the form of an event', async () => {
    await page.getByText('Name, what is written, password').click()
    await page.getByLabel('Only what is chosen').check()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect.poll(() => there(request)).toEqual(['Varnish'])
    const found = await page.request.get(`/api/occurrences?from=${thisWeek(0)}&to=${thisWeek(14)}&calendar=${calendar.id}`)
    const rowing = (await found.json()).find((one) => one.title === 'Rowing')
    await page.goto(`/events/${rowing.eventId}`)
    await page.getByRole('group', { name: 'Also written into' }).getByLabel('Boathouse board').check()
    await expectAccessible(page, 'an event that is also written elsewhere')
    await page.getByRole('button', { name: /^Save/ }).first().click()
    await expect.poll(() => there(request)).toEqual(['Rowing', 'Varnish'])
  })

  await test.step('given up, what was written there is taken away', async () => {
    await page.goto('/editions')
    await page.getByRole('link', { name: 'Boathouse board' }).click()
    await page.getByText('Write there no more').click()
    await page.getByRole('button', { name: 'Take them away there' }).click()
    await expect(page.getByText('is being taken away there')).toBeVisible()
    await expect.poll(() => there(request)).toEqual(['Varnish'])
  })
  // The plans of other journeys stay as long as they were.
  await send(page, `/api/calendars/${calendar.id}`, undefined, 'DELETE')
})

test('what members’ programs read here is found by our own client too, which may not write it', async ({ page }) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  await makeEvents(page, calendar, ['Hull check'], 2)
  const { secret } = await (await send(page, '/api/account/programs', { program: 'Valtro itself' })).json()
  await page.goto(`/calendars/${calendar.id}/publishing`)
  await page.getByRole('link', { name: 'Write it into a calendar elsewhere' }).click()
  await page.getByLabel('Address of the server').fill(valtro)
  await page.getByLabel('User').fill('ada@pinewick.example')
  await page.getByLabel('Password').fill(secret)
  await page.getByRole('button', { name: 'Find its calendars' }).click()
  await expect(page.getByText(`${calendar.name} lets this user read only`)).toBeVisible()
  await expect(page.getByLabel(calendar.name)).toBeDisabled()
  await send(page, `/api/calendars/${calendar.id}`, undefined, 'DELETE')
})
