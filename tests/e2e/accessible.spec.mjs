import { expect, test } from '@playwright/test'
import { expectAccessible, signIn, thisWeek } from './valtro.mjs'

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
      await open('/plan?weeks=6', '.slip')
      await open('/plan?view=month', '.slip-line')
      await open('/plan?view=week', '.time-slip')
      await open('/plan?view=day', '.time-column')
      await open('/plan?view=list', '.plan-list a')
      await open('/year', '.spans')
      await open('/lists', '.plain-list')
      await open('/bin', 'h1')
      await open('/help', '.example')
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
      await open(`/events/new?day=${thisWeek(1)}`, '.dates')
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

    for (const width of [220, 390, 1280]) {
      test(`on a reading page ${width} wide`, async ({ page }) => {
        await page.setViewportSize({ width, height: 800 })
        await page.goto('/c/pinewick/whole-school/embed')
        await expect(page.locator('.weeks')).toBeVisible()
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
        await expectAccessible(page, 'month')
        await page.getByRole('button', { name: 'List' }).click()
        await page.getByRole('button', { name: /Open harbour evening|Assembly/ }).first().click()
        await page.getByRole('button', { name: 'Subscribe' }).click()
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
        await expectAccessible(page, 'list')
      })
    }
  })
}
