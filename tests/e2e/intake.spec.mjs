import { expect } from '@playwright/test'
import { expectAccessible, makeCalendar, send, signIn, site, test, thisWeek } from './valtro.mjs'

const stamp = (day, time) => `${day.replaceAll('-', '')}T${time}`

/** A league's fixtures as its program writes them: a zone by another system's name, one without a start. */
const fixtures = (plate, tides = 'Tide race') =>
  Buffer.from(
    [
      'BEGIN:VCALENDAR',
      'X-WR-CALNAME:Island league',
      ...[
        [`UID:1-${plate}`, 'SUMMARY:Harbour – Saltmarsh', `DTSTART;TZID=Atlantic Standard Time:${stamp(thisWeek(4), '100000')}`],
        [`UID:2-${plate}`, `SUMMARY:${tides}`, `DTSTART:${stamp(thisWeek(5), '110000')}`, 'CATEGORIES:Match'],
        [`UID:3-${plate}`, 'SUMMARY:Crew supper', `DTSTART:${stamp(thisWeek(5), '190000')}`],
        [`UID:4-${plate}`, 'SUMMARY:Some day'],
      ].flatMap((lines) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']),
      'END:VCALENDAR',
    ].join('\n'),
  )

test('a file is brought, looked at, taken and taken back; a newer one shows what is new only', async ({ page }) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  const bring = async (name, buffer) => {
    await page.goto('/intake')
    await page.getByLabel('On which calendar').selectOption(calendar.id)
    await page.getByLabel('Choose a file').setInputFiles({ name, mimeType: 'text/calendar', buffer })
  }
  await bring('league.ics', fixtures(calendar.plate))
  await expect(page.getByRole('heading', { name: 'league.ics' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'new 3' })).toBeVisible()
  await expect(page.getByText('The zone “Atlantic Standard Time” is read as America/Halifax.')).toBeVisible()
  await expect(page.getByText('It does not say when it begins.')).toBeVisible()
  await expectAccessible(page, 'a file that is looked at')
  await page.getByRole('checkbox', { name: 'Take Crew supper' }).uncheck()
  await page.getByRole('button', { name: 'Take 2 events' }).click()
  await expect(page.getByText('2 events taken.')).toBeVisible()
  await page.goto(`/plan?day=${thisWeek(4)}&calendar=${calendar.plate}`)
  const race = page.getByRole('link', { name: /Tide race/ })
  await expect(race).toBeVisible()
  await expect(page.getByRole('link', { name: /Crew supper/ })).toBeHidden()

  await bring('league, newer.ics', fixtures(calendar.plate, 'Long tide race'))
  await expect(page.getByRole('button', { name: 'changed 1' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'the same 1' })).toBeVisible()
  await expect(page.getByText('Title: Tide race Long tide race')).toBeVisible()
  await page.getByRole('button', { name: 'Throw away' }).click()

  await page.getByRole('row', { name: /league\.ics/ }).getByRole('button', { name: 'Take back' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('row', { name: /league\.ics/ })).toContainText('Taken, and taken back.')
  await page.goto(`/plan?day=${thisWeek(4)}&calendar=${calendar.plate}`)
  await expect(page.getByText('Tide race')).toBeHidden()
})

test('what an address has is got and looked at, and one of this network is not asked', async ({ page }) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  await page.goto('/intake')
  await page.getByLabel('On which calendar').selectOption(calendar.id)
  await page.getByRole('button', { name: 'From an address' }).click()
  await page.getByLabel('Address of a calendar on the web').fill('https://10.0.0.1/fixtures.ics')
  await page.getByRole('button', { name: 'Get it' }).click()
  await expect(page.getByText('10.0.0.1 is no address on the internet')).toBeVisible()
  await page.getByLabel('Address of a calendar on the web').fill(`${site}/calendars/holidays.ics`)
  await page.getByRole('button', { name: 'Get it' }).click()
  await expect(page.getByRole('heading', { name: 'holidays.ics' })).toBeVisible()
  await expect(page.getByText('Lantern Day').first()).toBeVisible()
  await page.getByRole('button', { name: 'Take 18 events' }).click()
  await expect(page.getByText('18 events taken.')).toBeVisible()
})

test('a sheet is split onto the calendars that its column names, and its columns are put right', async ({ page }) => {
  await signIn(page)
  const [one, two] = [await makeCalendar(page), await makeCalendar(page)]
  await send(page, '/api/lists/categories', { name: `Outing ${one.plate}`, colour: 'kelp' })
  await page.goto('/intake')
  await page.getByLabel('On which calendar').selectOption('column')
  const sheet = `Day;Start;Event;Class;Sort\n${thisWeek(3)};9:00;Chart walk;${one.plate};Outing ${one.plate}\n${thisWeek(4)};;Lamp day;7C;\n`
  await page.getByLabel('Choose a file').setInputFiles({ name: 'term.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) })
  await expect(page.getByText('Say which calendar is meant by “7C”.')).toBeVisible()
  await page.getByLabel(/^7C/).selectOption(two.id)
  await expect(page.getByRole('button', { name: 'new 2' })).toBeVisible()
  await page.getByText('Columns:').click()
  await page.getByLabel('Column Sort is').selectOption('category')
  await expect(page.getByRole('listitem').filter({ hasText: 'Chart walk' })).toContainText(`Outing ${one.plate}`)
  await page.getByRole('button', { name: 'Take 2 events' }).click()
  await expect(page.getByText('2 events taken.')).toBeVisible()
  await page.goto(`/plan?day=${thisWeek(4)}&calendar=${one.plate},${two.plate}`)
  await expect(page.getByRole('link', { name: /Chart walk/ })).toBeVisible()
  await expect(page.getByRole('link', { name: /Lamp day/ })).toBeVisible()
})
