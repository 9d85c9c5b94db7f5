import AxeBuilder from '@axe-core/playwright'
import { expect, test as anyTest } from '@playwright/test'
import { randomBytes } from 'node:crypto'

export const valtro = process.env.VALTRO_E2E_URL
export const site = process.env.VALTRO_E2E_SITE

if (!valtro || !site) throw new Error('Run the end-to-end tests with ./valtro test e2e, which starts what they need.')

if (!process.env.VALTRO_CLOCK) throw new Error('VALTRO_CLOCK is not set: the tests must not live at the time of this machine.')

/** Calendars that the test made. */
const made = []

/** Every page of every context lives at the server's time. */
export const test = anyTest.extend({
  // A plan draws the lanes in view: calendars of other tests would push a new one out of it.
  withoutCalendars: [
    async ({ playwright }, use) => {
      await use()
      if (made.length === 0) return
      const ada = { request: await playwright.request.newContext({ baseURL: valtro }) }
      await signIn(ada)
      const { antiforgeryToken } = await (await ada.request.get('/api/session')).json()
      for (const id of made.splice(0)) {
        const answer = await ada.request.delete(`/api/calendars/${id}`, { headers: { 'X-Valtro-Token': antiforgeryToken } })
        // What the test removed itself is gone already.
        expect([200, 204, 404], `removing the calendar ${id}`).toContain(answer.status())
      }
      await ada.request.dispose()
    },
    { auto: true },
  ],
  browser: [
    async ({ browser }, use) => {
      const make = browser.newContext.bind(browser)
      browser.newContext = async (options) => {
        const context = await make(options)
        await context.clock.install({ time: new Date(await (await fetch(`${valtro}/clock`)).text()) })
        return context
      }
      await use(browser)
      browser.newContext = make
    },
    { scope: 'worker' },
  ],
})

/**
 * By the form, as people do.
 * @param screens What the navigation is called in the person's language.
 */
export async function signInByForm(page, name = 'ada', screens = 'Screens') {
  await page.goto('/')
  await page.getByLabel('E-mail address').fill(`${name}@pinewick.example`)
  await page.getByLabel('Password').fill('harbour-lantern')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: screens })).toBeVisible()
}

/** What the screens would send. */
export async function send(page, path, data, method = 'POST') {
  const { antiforgeryToken } = await (await page.request.get('/api/session')).json()
  const answer = await page.request.fetch(path, { method, headers: { 'X-Valtro-Token': antiforgeryToken }, data })
  expect(answer.ok(), `${path}: ${answer.status()}`).toBe(true)
  return answer
}

/** Without the form, for journeys that are about something else; no screen is opened yet. */
export const signIn = (page, name = 'ada') => send(page, '/api/session', { email: `${name}@pinewick.example`, password: 'harbour-lantern' })

function ofCalendar() {
  const plate = `E${randomBytes(4).readUInt32BE().toString(36).slice(-3)}`.toUpperCase()
  return { plate, name: `Lantern makers ${plate}` }
}

/** Makes a calendar without its form, and gives its name, plate and id. */
export async function makeCalendar(page, { forWhom = 'Everyone' } = {}) {
  const { plate, name } = ofCalendar()
  const level = (...whom) => (whom.includes(forWhom) ? 'complete' : 'nothing')
  const answer = await send(page, '/api/calendars', {
    name,
    plate,
    colour: 'harbour',
    zone: 'America/Halifax',
    disclosure: { members: level('Members', 'Everyone'), link: level('Everyone'), everyone: level('Everyone') },
  })
  const { id } = await answer.json()
  made.push(id)
  return { name, plate, id }
}

/** Makes events of an hour, on days of this week one after the other, without the form. */
export async function makeEvents(page, calendar, titles, day = 0) {
  const rows = titles.map((title, index) => ({ date: thisWeek(day + index), from: '9:00', to: '10:00', title, place: 'Loft', calendar: calendar.plate }))
  await send(page, '/api/events/several', { rows, calendarId: calendar.id })
}

/** Makes a calendar as people do. */
export async function makeCalendarByForm(page, { forWhom = 'Everyone' } = {}) {
  const { plate, name } = ofCalendar()
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
  const id = page.url().split('/').at(-2)
  made.push(id)
  return { name, plate, id }
}

/** In the form of an event: where there are many calendars, it is looked for. */
export async function chooseCalendar(page, name) {
  const find = page.locator('.calendar-choice input[type=search]')
  if (await find.count()) await find.fill(name)
  await page.locator('.calendar-choice label', { hasText: name }).click()
}

/** When the tests begin, whatever the machine says. */
export const moment = new Date(process.env.VALTRO_CLOCK.split('*')[0])

/** Today in Halifax, as 2026-11-23, and days after it. */
export function today(days = 0) {
  const date = new Date(new Intl.DateTimeFormat('en-CA', { timeZone: 'America/Halifax' }).format(moment))
  date.setUTCDate(date.getUTCDate() + days)
  return date.toISOString().slice(0, 10)
}

/** Monday of this week in Halifax, and days after it. */
export const thisWeek = (days = 0) => today(days - ((new Date(today()).getUTCDay() + 6) % 7))

/** Monday of the week in which the demo's great days are, and days after it: from Wednesday on it is the next one. */
export const demoWeek = (days = 0) => thisWeek(days + (today() < thisWeek(2) ? 0 : 7))

/** The moment at which the clocks in Halifax show a date and time, such as 2026-11-25T18:30. */
export function inHalifax(local) {
  const asUtc = new Date(`${local}Z`)
  const shown = new Date(`${new Intl.DateTimeFormat('sv-SE', { timeZone: 'America/Halifax', dateStyle: 'short', timeStyle: 'short' }).format(asUtc).replace(' ', 'T')}Z`)
  return new Date(2 * asUtc - shown)
}

/** As the desk writes a day: Wednesday 25 November. */
export function say(day) {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }).format(new Date(day))
}

/** Axe finds nothing, in the page or a part of it, by all rules or some. */
export async function expectAccessible(page, what, part, rules) {
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] })
  // Half the time, and the same where no frame is on the page.
  if (page.frames().length === 1) axe.setLegacyMode(true)
  // In the dark only the colours are others.
  const isDark = await page.evaluate(() => matchMedia('(prefers-color-scheme: dark)').matches)
  if (rules) axe.withRules(rules)
  else if (isDark) axe.withRules(['color-contrast'])
  else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
  const found = await (part ? axe.include(part) : axe).analyze()
  expect(found.violations.map((violation) => `${what}: ${violation.id} on ${violation.nodes.map((node) => node.target).join(', ')}`)).toEqual([])
}
