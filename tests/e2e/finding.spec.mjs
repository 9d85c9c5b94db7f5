import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import { signIn, test } from './valtro.mjs'

test('an event, a day and a place are found from everywhere, with the keyboard alone', async ({ page }) => {
  await signIn(page)
  await page.goto('/editions')
  await expect(page.getByRole('heading', { name: 'Editions' })).toBeVisible()
  await page.keyboard.press('/')
  const field = page.getByRole('combobox', { name: 'Search for' })
  await expect(field).toBeFocused()
  // With a typing error.
  await field.fill('regatat')
  await expect(page.getByRole('option', { name: /Winter regatta/ })).toBeVisible()
  await field.fill('boat lab port')
  await expect(page.getByRole('group', { name: 'Comes next' }).getByRole('option')).toHaveCount(1)
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/events\/[0-9a-f-]+\?date=/)
  await expect(page.getByLabel('Title')).toHaveValue('Boat lab')

  await page.getByRole('button', { name: /Find an event or a date/ }).click()
  await field.fill('12 march')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^Friday,? 12 March 2027$/ })).toBeVisible()

  await page.keyboard.press('/')
  await field.fill('slipway')
  await page.getByRole('option', { name: /Slipway in this place/ }).click()
  await expect(page.getByLabel('Narrow by place')).toHaveValue('Slipway')
  await expect(page.locator('.year-list tbody tr').first()).toContainText('Slipway')
})

test('the list of a year is narrowed, sorted, and taken along', async ({ page }) => {
  await signIn(page)
  await page.goto('/plan?view=list')
  await page.getByRole('button', { name: 'The whole year' }).click()
  await expect(page.getByText(/^1–100 of \d+$/)).toBeVisible()
  await page.getByRole('button', { name: 'Next page ›' }).click()
  await expect(page.getByText(/^101–\d+ of \d+$/)).toBeVisible()
  await page.goto('/plan?view=list&span=year&words=regatta')
  await page.getByRole('button', { name: 'Title' }).click()
  await expect(page.locator('.year-list tbody tr td:nth-child(3)')).toHaveText([
    'Autumn regatta',
    'Head of the Narrows',
    'Spring regatta',
    'Winter regatta',
  ])
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'values (.csv)' }).click()
  const file = readFileSync(await (await download).path(), 'utf8')
  expect(file).toContain('Winter regatta')
  expect(file.trim().split('\r\n')).toHaveLength(5)
})

test('a year is printed on one sheet, narrowed as the list of the year is', async ({ page }) => {
  await signIn(page)
  await page.goto('/plan?view=list&span=year&calendar=ROW')
  await page.getByRole('link', { name: 'On one sheet' }).click()
  const sheet = page.getByRole('article').first()
  await expect(sheet.locator('.wall-line', { hasText: 'Winter regatta' }).first()).toBeVisible()
  await expect(sheet.locator('section')).toHaveCount(12)
  await expect(sheet).toContainText('Winter break')
  await expect(sheet).not.toContainText('Open harbour evening')
  await expect(page.getByText('Ergometers', { exact: false }).last()).toContainText('On all year')
  // As whoever prints it gets it: one sheet of the paper that was chosen, with nothing of the desk around it.
  for (const [paper, across, down] of [['A4', 842, 595], ['A3', 1191, 842]]) {
    await page.getByRole('button', { name: paper, exact: true }).click()
    const pages = (await page.pdf({ preferCSSPageSize: true })).toString('latin1').matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)
    expect([...pages].map(([, wide, high]) => [Math.round(wide), Math.round(high)])).toEqual([[across, down]])
  }
  await page.getByRole('button', { name: 'The year after' }).click()
  await expect(page.getByRole('article').first()).toContainText('2027/28')
})

test('on a phone the plan is a list by day, and every screen keeps its width', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await signIn(page)
  await page.goto('/plan')
  await expect(page.getByRole('group', { name: 'Days' })).toBeVisible()
  await expect(page.locator('.phone-slip').first()).toBeVisible()
  for (const [way, heading] of [['Calendars', 'Calendars'], ['Editions', 'Editions'], ['Sign-off', 'Sign-off']]) {
    await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: new RegExp(`^${way}`) }).click()
    await expect(page.getByRole('heading', { name: heading, exact: true }).first()).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  }
  const screens = page.getByRole('navigation', { name: 'Screens' })
  await screens.getByRole('button', { name: 'More' }).click()
  await screens.locator('.dropdown-menu').getByText('People').click()
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})
