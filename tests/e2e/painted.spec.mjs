import { createHash } from 'node:crypto'
import { expect } from '@playwright/test'
import { site, test, valtro } from './valtro.mjs'

test('a reader without scripts reads, goes to other months and views, and opens an entry', async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false })
  const page = await context.newPage()
  const month = (name) => page.getByRole('heading', { level: 2, name, exact: true })
  await page.goto('/c/pinewick/whole-school')
  await expect(month('November 2026')).toBeVisible()
  await page.getByRole('link', { name: 'Later' }).click()
  await expect(month('December 2026')).toBeVisible()
  await page.getByRole('link', { name: 'List', exact: true }).click()
  await expect(page.locator('.view-list .line-title').first()).toBeVisible()
  await page.goto('/c/pinewick/whole-school')
  await expect(month('November 2026')).toBeVisible()
  await page.getByRole('link', { name: /Open harbour evening/ }).first().click()
  await expect(page.getByRole('heading', { name: 'Open harbour evening' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'this date' })).toBeVisible()
  for (const view of ['month', 'week', 'list', 'cards']) {
    await page.goto(`/c/pinewick/juniors-for-families?view=${view}&date=2026-12-09`)
    await expect(page.getByText('Boat lab').locator('visible=true').first()).toBeVisible()
  }
  await context.close()
})

test('a page whose scripts do not come can be read and followed', async ({ page }) => {
  await page.route('**/assets/*.js', (route) => route.abort())
  await page.goto('/c/pinewick/whole-school')
  await expect(page.locator('html')).not.toHaveClass(/is-alive/)
  await expect(page.locator('[inert]')).toHaveCount(0)
  await page.getByRole('link', { name: 'Later' }).click()
  await expect(page.getByRole('heading', { level: 2 })).toHaveText('December 2026')
  await expect(page.getByRole('searchbox')).toBeHidden()
})

test('a careful site’s frames, without an origin of their own or without scripts, show the calendar', async ({ page }) => {
  await page.goto(`${site}/sandbox`)
  const withScripts = page.frameLocator('iframe').nth(0)
  await withScripts.getByRole('button', { name: 'Week', exact: true }).click()
  await expect(withScripts.locator('.view-week')).toBeVisible()
  const without = page.frameLocator('iframe').nth(1)
  await expect(without.getByRole('link', { name: /Boat lab/ }).first()).toBeVisible()
  await without.getByRole('link', { name: 'Later' }).click()
  await expect(without.getByRole('heading', { level: 2 })).toHaveText('December 2026')
})

test('an embed is as light or dark as the page around it, and turns with it', async ({ page }) => {
  await page.goto(`${site}/embeds?count=1`)
  const root = page.frameLocator('iframe').locator('html')
  await expect(root).toHaveClass(/is-alive/)
  await expect(root).toHaveAttribute('data-scheme', 'light')
  await page.evaluate(() => (document.body.style.background = '#101418'))
  await expect(root).toHaveAttribute('data-scheme', 'dark')
  await expect(page.frameLocator('iframe').locator('main')).toHaveCSS('background-color', 'rgb(27, 37, 43)')
})

test('at midnight where the edition is kept, today moves on', { tag: '@days' }, async ({ page }) => {
  await page.goto('/c/pinewick/port-watch')
  const today = page.locator('.day-choice[aria-current=date]')
  const before = await today.getAttribute('aria-label')
  await page.clock.fastForward('24:00:00')
  await expect(today).not.toHaveAttribute('aria-label', before ?? '')
})

test('nine frames on one page and ten tabs share a stream, and another page still opens', async ({ context, page }) => {
  await page.goto(`${site}/many`)
  for (const frame of await page.locator('iframe').all()) await expect(frame.contentFrame().locator('html')).toHaveClass(/is-alive/)
  const tabs = []
  for (let tab = 0; tab < 10; tab++) {
    const another = await context.newPage()
    await another.goto(`${valtro}/c/pinewick/port-watch`)
    await expect(another.locator('html')).toHaveClass(/is-alive/)
    tabs.push(another)
  }
  expect((await tabs[9].goto(`${valtro}/c/pinewick/starboard-watch`)).status()).toBe(200)
  await Promise.all(tabs.map((tab) => tab.close()))
})

for (const count of [1, 2, 5])
  test(`the page around ${count === 1 ? 'one embed' : `${count} embeds`} hardly moves`, async ({ page }) => {
    await page.addInitScript(() => {
      window.shift = 0
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) if (!entry.hadRecentInput) window.shift += entry.value
      }).observe({ type: 'layout-shift', buffered: true })
    })
    await page.goto(`${site}/embeds?count=${count}`)
    await expect(page.locator('iframe')).toHaveCount(count)
    for (const frame of await page.locator('iframe').all()) await expect(frame.contentFrame().locator('html')).toHaveClass(/is-alive/)
    // What comes later is found too.
    await page.evaluate((address) => {
      const later = document.createElement('div')
      later.dataset.valtro = address
      document.querySelector('main').append(later)
    }, `${valtro}/c/pinewick/port-watch/embed`)
    await expect(page.locator('iframe')).toHaveCount(count + 1)
    await expect(page.locator('iframe').first()).toHaveAttribute('allow', 'clipboard-write')
    expect(await page.evaluate(() => window.shift)).toBeLessThan(0.05)
  })

test('a page may take the script as a module, or only with the sum it knows', async ({ page, request }) => {
  const script = await (await request.get(`${valtro}/embed.js`)).body()
  const sum = createHash('sha384').update(script).digest('base64')
  for (const address of ['module', `checked?sum=${encodeURIComponent(`sha384-${sum}`)}`]) {
    await page.goto(`${site}/${address}`)
    await expect(page.frameLocator('iframe').locator('html')).toHaveClass(/is-alive/)
  }
  const refused = page.waitForEvent('console', (message) => message.text().includes('integrity'))
  await page.goto(`${site}/checked?sum=${encodeURIComponent(`sha384-${'A'.repeat(64)}`)}`)
  await refused
  await expect(page.locator('iframe')).toHaveCount(0)
})
