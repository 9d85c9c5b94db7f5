import { expect } from '@playwright/test'
import { demoWeek, makeCalendar, signIn, test, thisWeek, valtro } from './valtro.mjs'

/** One dot, and another. */
const [dot, other] = ['mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==', 'mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg=='].map((end) =>
  Buffer.from(`iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42${end}`, 'base64'),
)

test('an event is kept as a template, another starts from it, and its picture is replaced where it is', async ({ page, request }) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  await page.goto(`/events/new?calendar=${calendar.id}&day=${thisWeek(3)}`)
  await page.getByLabel('Title').fill('Parents’ evening')
  await page.getByLabel('Start time').fill('18:00')
  await page.getByLabel('End time').fill('20:30')
  await page.getByRole('combobox', { name: 'Where' }).fill('Hall')
  await page.getByRole('group', { name: 'More to say' }).getByRole('button', { name: 'Files' }).click()
  await page.getByLabel('Bring files').setInputFiles({ name: 'hall.png', mimeType: 'image/png', buffer: dot })
  await page.getByLabel('What the picture shows').fill('The hall with chairs in rows')
  await page.getByRole('button', { name: 'Keep as a template' }).click()
  await page.getByRole('group', { name: 'Keep as a template' }).getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Parents’ evening is kept as a template' })).toBeVisible()

  await page.goto(`/events/new?calendar=${calendar.id}&day=${thisWeek(4)}`)
  await page.getByRole('navigation', { name: 'Start from' }).getByRole('link', { name: `${calendar.plate} Parents’ evening` }).click()
  await expect(page.getByLabel('Title')).toHaveValue('Parents’ evening')
  await expect(page.getByLabel('Start time')).toHaveValue('18:00')
  await expect(page.getByLabel('End time')).toHaveValue('20:30')
  await expect(page.getByLabel('What the picture shows')).toHaveValue('The hall with chairs in rows')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  const slip = page.getByRole('link', { name: /Parents’ evening/ }).and(page.locator(`[href*="${thisWeek(4)}"], .slip`)).last()
  await expect(slip).toBeVisible()

  const reading = `${valtro}/c/pinewick/lantern-makers-${calendar.plate.toLowerCase()}`
  await expect.poll(async () => (await (await request.get(`${reading}.ics`)).text()).includes('Parents’ evening')).toBe(true)
  const month = await (await request.get(`${reading}.json?month=${thisWeek(4).slice(0, 7)}`)).json()
  const { picture } = month.entries.find((entry) => entry.title.includes('Parents’ evening'))
  expect(picture.alternative).toBe('The hall with chairs in rows')
  const address = `${reading}/${picture.address}`
  const before = await (await request.get(address)).body()

  await slip.click()
  await page.getByLabel('A new version of hall.png').setInputFiles({ name: 'hall-2027.png', mimeType: 'image/png', buffer: other })
  await expect(page.getByText('hall.png is replaced, at the same address.')).toBeVisible()
  await expect.poll(async () => (await (await request.get(address)).body()).equals(before)).toBe(false)
})

test('somebody has what they lead in a calendar program of their own, and nobody else', async ({ page, request }) => {
  await signIn(page, 'cy')
  await page.goto('/account')
  await page.getByRole('button', { name: 'Make my own address' }).click()
  const feed = await page.getByLabel('Your feed link').inputValue()
  const text = (await (await request.get(feed)).text()).replaceAll('\r\n ', '')
  expect(text).toContain('Ergometers')
  expect(text).not.toContain('Boat lab')
  await page.getByRole('link', { name: 'Look at them on the plan' }).click()
  await expect(page.getByRole('link', { name: /Ergometers/ }).first()).toBeVisible()
  await page.goto('/account')
  await page.getByRole('button', { name: 'Withdraw it' }).click()
  await page.getByRole('button', { name: 'Withdraw the address' }).click()
  await expect(page.getByRole('button', { name: 'Make my own address' })).toBeVisible()
  expect((await request.get(feed)).status()).toBe(410)
})

test('while an event is typed it is said that its week holds too much, and that nobody gets its reminder', { tag: ['@days', '@demo'] }, async ({ page }) => {
  await signIn(page)
  const { id } = (await (await page.request.get('/api/calendars')).json()).find(({ plate }) => plate === 'SW')
  await page.goto(`/events/new?calendar=${id}&day=${demoWeek(3)}`)
  await page.getByLabel('Title').fill('Knots test')
  await page.getByLabel('Category').selectOption({ label: 'Assessment' })
  await expect(page.getByText(/3 × Assessment in this week for Junior families, and 1 should be the most/)).toBeVisible()
  await page.getByRole('group', { name: 'More to say' }).getByRole('button', { name: 'Reminder' }).click()
  await page.getByRole('combobox', { name: 'Reminder' }).selectOption('days')
  await expect(page.getByText('No edition that has it reminds of it', { exact: false })).toBeVisible()
})

test('the lists fit on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await signIn(page)
  await page.goto('/lists')
  await expect(page.getByRole('img', { name: 'Picture of Outer harbour' })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})
