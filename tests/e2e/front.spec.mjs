import { expect } from '@playwright/test'
import { expectAccessible, makeCalendar, makeEvents, send, signIn, test, thisWeek, valtro } from './valtro.mjs'

test('a parent finds their classes on the front page and takes one page and one subscription for just those', async ({ page, request }) => {
  await page.goto('/c/pinewick')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Pinewick Harbour School')
  await expectAccessible(page, 'front page')
  await page.getByRole('searchbox').fill('knots')
  await page.getByRole('button', { name: 'Search' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Knots and lines' }).first()).toBeVisible()
  await expectAccessible(page, 'front page, found')
  await page.getByRole('link', { name: 'Show everything' }).click()
  await page.getByRole('link', { name: 'Choose your classes' }).click()
  await page.getByRole('checkbox', { name: /Port Watch/ }).check()
  await page.getByRole('checkbox', { name: /Senior Crew/ }).check()
  await page.getByRole('button', { name: 'Show these' }).click()
  await expect(page).toHaveURL(/harbour-almanac\?only=port-watch,senior-crew$/)
  await expect(page.getByRole('button', { name: /Starboard Watch/, pressed: false })).toBeVisible()
  await page.getByRole('link', { name: 'Subscribe' }).or(page.getByRole('button', { name: 'Subscribe' })).first().click()
  const address = await page.getByLabel(/this address/).inputValue()
  expect(address).toMatch(/harbour-almanac\.ics\?only=senior-crew,port-watch$/)
  const feed = await (await request.get(address)).text()
  expect(feed).toContain('Night pilotage')
  expect(feed).not.toContain('SW Boat lab')
})

test('the front page is for a phone, too, and works without a script', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: valtro, viewport: { width: 390, height: 800 }, javaScriptEnabled: false })
  const page = await context.newPage()
  await page.goto('/c/pinewick?find=boat')
  await expect(page.getByText('Boat lab').first()).toBeVisible()
  await page.goto('/c/pinewick')
  await page.getByRole('checkbox', { name: /Port Watch/ }).check()
  await page.getByRole('button', { name: 'Show these' }).click()
  await expect(page).toHaveURL(/only=port-watch$/)
  await context.close()
})

test.describe('on the home screen', () => {
  test.use({ serviceWorkers: 'allow' })

  test('a page is kept for when there is no network, with its age, and forgotten when it is closed', async ({ page, context, browser }) => {
    // Nothing takes the network from a worker that pages share: the news of one that lives on would say that the page is right.
    await context.addInitScript(() => delete globalThis.SharedWorker)
    const desk = await (await browser.newContext({ baseURL: valtro, locale: 'en-GB' })).newPage()
    await signIn(desk)
    const calendar = await makeCalendar(desk)
    await makeEvents(desk, calendar, ['Skiff show'], 4)
    const address = `/c/pinewick/lantern-makers-${calendar.plate.toLowerCase()}`
    const manifest = await (await page.request.get(`${address}/app.webmanifest`)).json()
    expect(manifest.start_url).toBe(address)
    await page.goto(address)
    await page.evaluate(() => navigator.serviceWorker.ready)
    // From now on it stands between.
    await page.reload()
    await expect(page.locator('html.is-alive')).toBeAttached()
    await expect(page.getByText('Skiff show').first()).toBeVisible()
    await context.setOffline(true)
    await page.goto(`${address}?view=list`)
    await expect(page.getByText('Skiff show').first()).toBeVisible()
    await expect(page.getByText(/There is no network. This is the copy of/)).toBeVisible()
    await context.setOffline(false)
    await page.reload()
    await expect(page.getByText(/There is no network/)).toHaveCount(0)
    const stored = await (await desk.request.get(`/api/calendars/${calendar.id}`)).json()
    const disclosure = { members: 'complete', link: 'nothing', everyone: 'nothing' }
    await send(desk, `/api/calendars/${calendar.id}/disclosure`, { disclosure, version: stored.version }, 'PUT')
    // Asked for anew: what the browser has is good for a minute.
    await expect.poll(async () => (await page.reload()).status()).toBe(404)
    await context.setOffline(true)
    await expect(page.goto(address)).rejects.toThrow(/ERR_/)
  })
})
