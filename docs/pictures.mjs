// Makes the pictures of the README anew, from fresh demo data on a day that is always the same: ./valtro pictures
import { chromium } from '../tests/e2e/node_modules/playwright-core/index.mjs'

const base = process.env.VALTRO_E2E_URL
const site = process.env.VALTRO_E2E_SITE
/** The same school with 48 calendars. */
const large = process.env.VALTRO_LARGE_URL
const wanted = process.argv.slice(2)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking'] })

const desk = { width: 1280, height: 800 }
const phone = { width: 390, height: 844 }
const reading = `${base}/c/pinewick/juniors-for-families`

async function boatLab(page) {
  await page.goto(`${base}/plan`)
  await page.getByRole('link', { name: /Boat lab/ }).first().click()
  await page.getByRole('list', { name: 'Dates' }).waitFor()
}

/** By name: who looks, how wide, what is done, and where it is signed in if not at the small school. */
const pictures = {
  plan: ['ada', desk, (page) => page.goto(`${base}/plan`)],
  'plan-phone': ['ada', phone, (page) => page.goto(`${base}/plan`)],
  'plan-large': ['ada', desk, (page) => page.goto(`${large}/plan?day=2026-12-02`), large],
  proof: [
    'ada',
    desk,
    async (page) => {
      await page.goto(`${base}/plan`)
      const editions = await (await page.request.get(`${base}/api/editions`)).json()
      await page.goto(`${base}/editions/${editions.find((one) => one.name === 'Open harbour week').id}/proof`)
      await page.locator('.proof-line').first().waitFor()
    },
  ],
  sheet: ['ada', { ...desk, height: 1140 }, (page) => page.goto(`${base}/plan/sheet`)],
  'front-page': [null, desk, (page) => page.goto(`${base}/c/pinewick`)],
  deliveries: [
    'ada',
    desk,
    async (page) => {
      const editions = await (await page.request.get(`${base}/api/editions`)).json()
      await page.goto(`${base}/editions/${editions.find((one) => one.name === 'Juniors for families').id}/deliveries`)
      await page.locator('.bar-newest').first().waitFor()
    },
  ],
  // Higher, so that all that follows from an event is on it.
  event: ['ada', { ...desk, height: 1150 }, boatLab],
  // A break that is not saved yet, and what readers would get.
  'year-plan': [
    'ada',
    desk,
    async (page) => {
      await page.goto(`${base}/year`)
      await page.getByRole('button', { name: 'Add a break' }).click()
      await page.getByLabel('Name of break 4').fill('Whale day')
      await page.getByLabel('First day of Whale day', { exact: true }).fill('1 Dec 2026')
      await page.getByLabel('Last day of Whale day', { exact: true }).fill('1 Dec 2026')
      await page.getByRole('button', { name: /Look through the/ }).click()
      await page.getByText(/editions? stays? as/).waitFor()
    },
  ],
  source: [
    'ada',
    desk,
    async (page) => {
      await page.goto(`${base}/intake`)
      await page.getByRole('link', { name: 'Learning platform, due dates' }).click()
      await page.getByRole('link', { name: 'Plankton log' }).first().waitFor()
    },
  ],
  intake: [
    'ada',
    desk,
    async (page) => {
      const now = Date.parse(await (await fetch(`${base}/clock`)).text())
      const day = (days) => new Date(now + days * 86_400_000).toISOString().slice(0, 10)
      const lines = [
        ['Day', 'Start', 'End', 'Event', 'Where', 'Class', 'Kind'],
        [day(16), '9:00', '10:30', 'Chart test', 'Loft', 'PW', 'Assessment'],
        [day(17), '13:00', '16:00', 'Harbour walk', 'Slipway', '7C', 'Outing'],
        ['31 Feb', '10:00', '11:00', 'Engine lesson', '', 'CREW', ''],
        [day(21), '17:00', '18:30', 'Parents’ evening', 'Hall', 'Whole school', ''],
        [day(23), '', '', 'Lantern day', '', 'Whole school', 'Outing'],
      ]
      await page.goto(`${base}/intake`)
      await page.getByLabel('On which calendar').selectOption('column')
      const buffer = Buffer.from(lines.map((line) => line.join(';')).join('\n'))
      await page.getByLabel('Choose a file').setInputFiles({ name: 'Term dates.csv', mimeType: 'text/csv', buffer })
      await page.getByText('Say which calendar is meant by “7C”.').waitFor()
      await page.getByText('Who will see them:').waitFor()
    },
  ],
  calendars: ['ada', desk, (page) => page.goto(`${base}/calendars`)],
  'sign-off': ['ada', desk, (page) => page.goto(`${base}/sign-off`)],
  editions: [
    'ada',
    desk,
    async (page) => {
      await page.goto(`${base}/editions`)
      // Each is looked through some seconds after it was made.
      await page.waitForFunction(() => !document.body.textContent.includes('looked through'), undefined, { timeout: 60_000 })
    },
  ],
  edition: [
    'ada',
    desk,
    async (page) => {
      await page.goto(`${base}/editions`)
      await page.getByRole('link', { name: 'Compose Juniors for families' }).click()
      await page.frameLocator('iframe').locator('.weeks').waitFor()
    },
  ],
  website: [null, desk, (page) => page.goto(site)],
  'reading-page': [null, desk, (page) => page.goto(reading)],
  'reading-page-phone': [null, phone, (page) => page.goto(`${reading}?view=list`)],
  // Last, since it makes a year.
  forward: [
    'ada',
    desk,
    async (page) => {
      await page.goto(`${base}/year`)
      await page.getByRole('button', { name: 'Copy to the next year' }).click()
      await page.getByRole('button', { name: 'Save the year plan' }).click()
      await page.getByText('Pages and feeds follow.').waitFor()
      await page.goto(`${base}/year/carry`)
      await page.getByRole('cell', { name: /Slipway is taken/ }).first().waitFor()
    },
  ],
}

for (const [name, [who, viewport, act, signInAt = base]] of Object.entries(pictures)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue
  const context = await browser.newContext({ viewport, locale: 'en-GB', timezoneId: 'America/Halifax', reducedMotion: 'reduce' })
  await context.clock.install({ time: new Date(await (await fetch(`${base}/clock`)).text()) })
  const page = await context.newPage()
  if (who) {
    await page.goto(signInAt)
    await page.getByLabel('E-mail address').fill(`${who}@pinewick.example`)
    await page.getByLabel('Password').fill('harbour-lantern')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('navigation', { name: 'Screens' }).waitFor()
  }
  await act(page)
  await page.waitForTimeout(1_200)
  await page.screenshot({ path: new URL(`screenshots/${name}.png`, import.meta.url).pathname })
  console.log(name)
  await context.close()
}
await browser.close()
