import { expect } from '@playwright/test'
import { expectAccessible, send, signIn, test, thisWeek } from './valtro.mjs'

// The longest file by far: its tests are spread over all workers.
test.describe.configure({ mode: 'parallel' })

for (const colorScheme of ['light', 'dark']) {
  test.describe(`axe finds nothing, ${colorScheme}`, () => {
    test.use({ colorScheme })

    test('on the sign-in', async ({ page }) => {
      await page.goto('/')
      await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible()
      await expectAccessible(page, 'sign-in')
      for (const address of ['/forgotten', '/reset#x', '/invitation#x']) {
        await page.goto(address)
        await expect(page.getByRole('heading').first()).toBeVisible()
        await expectAccessible(page, address)
      }
    })

    test('on the desk', async ({ page }) => {
      // Some thirty screens, one after the other.
      test.setTimeout(300_000)
      await signIn(page)
      const open = async (address, shown) => {
        await page.goto(address)
        await expect(page.locator(shown).first()).toBeVisible()
        await expectAccessible(page, address)
      }
      await open('/plan', '.slip')
      await open('/plan?view=week', '.time-slip')
      // In the dark only the colours are others, and these screens have all of them.
      if (colorScheme === 'light') {
        await open('/plan?weeks=6', '.slip')
        await open('/plan?view=month', '.slip-line')
        await open('/plan?view=day', '.time-column')
        await open('/plan?view=list', '.plan-list a')
        await open('/plan/sheet', '.wall-sheet')
        await open('/lists', '.plain-list')
        await open('/bin', 'h1')
        await open('/help', '.example')
        await open('/intake', '.bring-events')
        await open('/intake/follow', '.follow')
        const editions = await (await page.request.get('/api/editions')).json()
        await open(`/editions/${editions.find((one) => one.name === 'Juniors for families').id}/proof`, '.finding')
        await open(`/editions/${editions.find((one) => one.name === 'Juniors for families').id}/deliveries`, '.fetched-chart')
        await open('/needs', '.finding')
      }
      await open('/events/new?line=Spring concert at 7 in the park asap', '.line-question')
      await open('/year', '.spans')
      await open('/events/several', '.several-table')
      await page.goto('/plan')
      await page.getByRole('link', { name: /Boat lab/ }).first().click()
      await expect(page.getByRole('list', { name: 'Dates' })).toBeVisible()
      await expectAccessible(page, 'event')
      await page.getByRole('button', { name: 'Cancel dates' }).click()
      await expect(page.getByRole('dialog')).toHaveCSS('opacity', '1')
      await page.waitForFunction(() => document.getAnimations().length === 0)
      await expectAccessible(page, 'which dates')
      await page.getByRole('button', { name: 'Leave it as it is' }).click()
      await expect(page.getByRole('dialog')).toHaveCount(0)
      await page.getByRole('link', { name: 'All earlier versions' }).click()
      await expect(page.locator('.history li').first()).toBeVisible()
      await expectAccessible(page, 'history')
      await page.goBack()
      await page.getByRole('button', { name: 'Until: choose from a month' }).click()
      // Only the month itself: what it covers cannot be pressed while it is open.
      await expectAccessible(page, 'small month', '.month-popup')
      await open(`/events/new?day=${thisWeek(1)}`, '.calendar-choice')
      await open('/calendars', '.audiences')
      await page.getByRole('button', { name: /Rowing club, everyone/ }).click()
      await page.getByRole('dialog').getByRole('button', { name: 'Complete' }).click()
      await expect(page.getByRole('dialog')).toContainText('become public')
      await expectAccessible(page, 'a cell of the table')
      await open('/sign-off', '.submission')
      await open('/people', '.plain-table')
      await page.getByRole('button', { name: 'Invite somebody' }).click()
      await expect(page.getByRole('dialog')).toHaveCSS('opacity', '1')
      await page.waitForFunction(() => document.getAnimations().length === 0)
      await expectAccessible(page, 'inviting')
      await open('/people?view=audit', '.plain-table')
      await open('/account', '.block')
      await open('/calendars/new', '.swatch')
      await page.getByLabel('Name', { exact: true }).fill('Axe')
      await page.getByRole('radio', { name: 'Everyone' }).check()
      await page.getByRole('button', { name: 'Make the calendar' }).click()
      await expect(page.getByRole('dialog')).toHaveCSS('opacity', '1')
      await page.waitForFunction(() => document.getAnimations().length === 0)
      await expectAccessible(page, 'opening to everyone')
      await page.goto('/calendars')
      await page.getByRole('link', { name: 'Publish Port Watch' }).click()
      await expect(page.frameLocator('iframe').locator('.weeks')).toBeVisible()
      await expectAccessible(page, 'publishing')
    })

    for (const [width, views] of [
      [220, ['Month', 'List', 'Cards']],
      [300, ['Small month', 'Week']],
      [390, ['Month', 'Week', 'Day', 'List', 'Cards']],
      [768, ['Month', 'Week']],
      [1280, ['Month', 'Week', 'Day', 'List', 'Cards', 'Small month']],
    ].filter(([width]) => colorScheme === 'light' || width === 390 || width === 1280)) {
      // In the dark only the colours are others: two widths show them all.
      test(`on a reading page ${width} wide`, async ({ page }) => {
        await page.setViewportSize({ width, height: 800 })
        await page.goto(`${await everyView(page)}/embed`)
        for (const view of views) {
          await page.getByRole('button', { name: view, exact: true }).click()
          await expect(page.locator('[data-entry]:visible, .nothing:visible').first()).toBeVisible()
          expect(await page.evaluate(() => document.documentElement.scrollWidth), view).toBeLessThanOrEqual(width)
          // All fit; what axe sees of a view in a wide frame it sees once.
          if (width < 768 || !['Day', 'List'].includes(view)) await expectAccessible(page, `${view}, ${width} wide`)
        }
        await page.locator('[data-entry]:visible').first().click()
        await page.getByRole('button', { name: 'Subscribe' }).click()
        await page.getByRole('button', { name: 'Changed lately' }).click()
        await expect(page.getByRole('region', { name: 'Changed lately' })).toContainText(/./)
        await expectAccessible(page, 'changes and details')
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
      })
    }

    test('on an entry’s own page, and from right to left', async ({ browser, page }) => {
      const { entries } = await (await page.request.get('/c/pinewick/whole-school.json')).json()
      await page.goto(`/c/pinewick/whole-school/entries/${entries.find((entry) => entry.hasPage).id}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      await expectAccessible(page, 'an entry’s own page')
      const arabic = await (await browser.newContext({ locale: 'ar', colorScheme })).newPage()
      await arabic.goto('/c/pinewick/juniors-for-families')
      await expect(arabic.locator('html')).toHaveAttribute('dir', 'rtl')
      await expectAccessible(arabic, 'right to left')
      await arabic.context().close()
    })

    test('on the builder of editions', async ({ page }) => {
      await signIn(page)
      await page.goto('/editions')
      await page.getByRole('link', { name: 'Compose Juniors for families' }).click()
      await expect(page.frameLocator('iframe').locator('.weeks')).toBeVisible()
      await page.getByRole('button', { name: /everything of Port Watch/ }).click()
      await page.getByRole('button', { name: /what a click does/ }).click()
      await page.getByRole('button', { name: /one by one/ }).click()
      await page.getByRole('button', { name: 'Open it …' }).click()
      await expectAccessible(page, 'builder')
      await page.goto('/editions')
      await expect(page.locator('.editions-table').first()).toBeVisible()
      await expectAccessible(page, 'editions')
    })
  })
}

/** An edition whose readers may switch to every view; made once. */
async function everyView(page) {
  const address = '/c/pinewick/every-view'
  if ((await page.request.get(address)).ok()) return address
  await signIn(page)
  const calendars = (await (await page.request.get('/api/calendars')).json()).filter((calendar) => ['PW', 'SW', 'SCH'].includes(calendar.plate))
  await send(page, '/api/editions', {
    isOut: true,
    edition: {
      name: 'Every view',
      sources: calendars.map((calendar) => ({ calendarId: calendar.id })),
      withBreaks: true,
      look: { view: 'month', views: ['month', 'week', 'day', 'list', 'cards', 'smallMonth'] },
    },
  })
  return address
}
