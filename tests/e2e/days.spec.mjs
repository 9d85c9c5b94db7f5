import { expect } from '@playwright/test'
import { demoWeek, expectAccessible, moment, say, signIn, site, test, thisWeek, today } from './valtro.mjs'

test('what the demo is there to show lies ahead, its pictures included', { tag: ['@days', '@demo'] }, async ({ page }) => {
  await signIn(page)
  const dates = await (await page.request.get(`/api/occurrences?from=${demoWeek(0)}&to=${demoWeek(28)}`)).json()
  // What the first pictures of the product show, each at least once after today's hour.
  const shown = {
    'Boat lab': (date) => date.state === 'live',
    'Knots and lines': (date) => date.state === 'cancelled',
    Ergometers: (date) => date.place === 'Hall',
    'Open harbour evening': () => true,
    'Chart exercise 4': () => true,
    'Tide-table quiz': () => true,
    'Radio exam': () => true,
    'Head of the Narrows': () => true,
    'Call with the Oslo rowers': () => true,
    'Night watch on the pier': () => true,
    'Lantern supper': () => true,
    'Exam week': (date) => date.allDay,
    'Winter regatta': (date) => date.allDay,
  }
  for (const [title, isIt] of Object.entries(shown)) {
    const found = dates.filter((date) => date.title === title && isIt(date))
    expect(found.length, title).toBeGreaterThan(0)
    expect(Math.max(...found.map((date) => Date.parse(date.start))), title).toBeGreaterThan(moment.getTime())
  }
  // One date of Boat lab was moved, and the list of what changed says so.
  await page.goto(`/c/pinewick/juniors-for-families?date=${demoWeek(2)}`)
  await page.getByRole('button', { name: 'Changed lately' }).click()
  const changes = page.getByRole('region', { name: 'Changed lately' })
  await expect(changes.getByRole('listitem').filter({ hasText: 'Boat lab' })).toContainText('was')
  await expect(changes.getByRole('listitem').filter({ hasText: 'Knots and lines' })).toContainText('cancelled')

  await page.goto(`${site}/blog`)
  const cards = page.frameLocator('iframe').locator('.card')
  await expect(cards.filter({ hasText: 'Open harbour evening' }).locator('img')).toHaveJSProperty('complete', true)
  await expect(cards.filter({ hasText: 'Open harbour evening' }).locator('img')).not.toHaveJSProperty('naturalWidth', 0)
  await page.goto('/c/pinewick/next-at-school')
  await expect(page.locator('[data-entry]')).toHaveCount(6)
})

test('today is marked in every view, on the desk and for readers', { tag: '@days' }, async ({ page, browser }) => {
  await signIn(page)
  await page.goto('/plan')
  await expect(page.locator('.lanes th', { hasText: 'today' })).toContainText(String(Number(today().slice(8))))
  await page.goto('/plan?view=month')
  await expect(page.locator('td[aria-current="date"]', { has: page.getByRole('button', { name: `New event, ${say(today())}` }) })).toHaveCount(1)
  for (const [locale, size] of [
    ['en-GB', { width: 1280, height: 800 }],
    ['ar', { width: 1280, height: 800 }],
    ['de-DE', { width: 390, height: 844 }],
  ]) {
    const reader = await (await browser.newContext({ locale, viewport: size })).newPage()
    await reader.goto('/c/pinewick/juniors-for-families')
    await expect(reader.locator('[aria-current="date"]')).toHaveText(new RegExp(Number(today().slice(8)).toLocaleString(locale)))
    // What is chosen can be pressed, whichever cell it is.
    await expectAccessible(reader, `the month of ${today()}, ${locale}, ${size.width} wide`, null, ['target-size', 'color-contrast'])
    await reader.context().close()
  }
})

test('the week that holds today holds it whichever day it is', { tag: '@days' }, async ({ page }) => {
  await page.goto('/c/pinewick/juniors-for-families?view=week')
  await expect(page.locator('.column')).toHaveCount(7)
  await expect(page.locator('.column.is-today')).toHaveCount(1)
  const place = (Date.parse(today()) - Date.parse(thisWeek())) / 86_400_000
  await expect(page.locator('.column').nth(place)).toHaveClass(/is-today/)
  await page.goto('/c/pinewick/juniors-for-families?view=list')
  await expect(page.locator('.days, .nothing').first()).toBeVisible()
})
