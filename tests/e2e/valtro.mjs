import AxeBuilder from '@axe-core/playwright'
import { expect } from '@playwright/test'
import { randomBytes } from 'node:crypto'

export const valtro = process.env.VALTRO_E2E_URL
export const site = process.env.VALTRO_E2E_SITE

if (!valtro || !site) throw new Error('Run the end-to-end tests with ./valtro test e2e, which starts what they need.')

export async function signIn(page, name = 'ada') {
  await page.goto('/')
  await page.getByLabel('E-mail address').fill(`${name}@pinewick.example`)
  await page.getByLabel('Password').fill('harbour-lantern')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
}

/** Makes a calendar and gives its name, plate and id. */
export async function makeCalendar(page, { forWhom = 'Everyone' } = {}) {
  const plate = `E${randomBytes(4).readUInt32BE().toString(36).slice(-3)}`.toUpperCase()
  const name = `Lantern makers ${plate}`
  await page.goto('/calendars/new')
  await page.getByLabel('Name', { exact: true }).fill(name)
  await expect(page.getByLabel('Plate')).not.toHaveValue('')
  await page.getByLabel('Plate').fill(plate)
  await page.getByRole('radio', { name: forWhom }).check()
  await page.getByRole('button', { name: 'Make the calendar' }).click()
  if (forWhom === 'Everyone') {
    await expect(page.getByRole('dialog')).toContainText('no events yet')
    await page.getByRole('button', { name: 'Open to everyone' }).click()
    await page.waitForURL(/publishing$/)
  } else {
    await page.waitForURL(/calendars$/)
    await page.getByRole('link', { name: `Publish ${name}` }).click()
    await page.waitForURL(/publishing$/)
  }
  return { name, plate, id: page.url().split('/').at(-2) }
}

/** Monday of this week in Halifax, as 2026-11-23, and days after it. */
export function thisWeek(days = 0) {
  const today = new Intl.DateTimeFormat('en-CA', { timeZone: 'America/Halifax' }).format(new Date())
  const date = new Date(`${today}T00:00:00Z`)
  date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7) + days)
  return date.toISOString().slice(0, 10)
}

/** As the desk writes a day: Wednesday 25 November. */
export function say(day) {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }).format(new Date(day))
}

export async function expectAccessible(page, what, part) {
  const axe = new AxeBuilder({ page })
  // In the dark only the colours are others.
  const isDark = await page.evaluate(() => matchMedia('(prefers-color-scheme: dark)').matches)
  if (isDark) axe.withRules(['color-contrast'])
  else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
  const found = await (part ? axe.include(part) : axe).analyze()
  expect(found.violations.map((violation) => `${what}: ${violation.id} on ${violation.nodes.map((node) => node.target).join(', ')}`)).toEqual([])
}
