import { expect } from '@playwright/test'
import { expectAccessible, makeCalendar, makeEvents, send, signIn, test, thisWeek } from './valtro.mjs'

/** The plan of the journeys that come later is no longer for these. */
test.afterEach(async ({ page }) => {
  const calendars = await (await page.request.get('/api/calendars')).json()
  for (const { id } of calendars.filter((one) => made.has(one.id))) await send(page, `/api/calendars/${id}`, undefined, 'DELETE')
})

const made = new Set()

async function ownCalendar(page) {
  const calendar = await makeCalendar(page, { forWhom: 'Members' })
  made.add(calendar.id)
  return calendar
}

test('several dates are chosen, looked at, moved by one press, and taken back by another', async ({ page }) => {
  await signIn(page)
  const calendar = await ownCalendar(page)
  await makeEvents(page, calendar, ['Oars', 'Sails', 'Ropes'])
  await page.goto(`/plan?calendar=${calendar.plate}`)
  const slip = (title) => page.locator('a.slip', { hasText: title })
  await slip('Oars').focus()
  await page.keyboard.press('Space')
  const bar = page.getByRole('region', { name: 'Chosen dates' })
  await expect(bar).toContainText('1 date chosen')
  await slip('Sails').click()
  await expect(bar).toContainText('2 dates chosen of 2 events')
  await expectAccessible(page, 'choosing')

  await bar.getByRole('button', { name: 'Move', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('By', { exact: true }).fill('2')
  await dialog.getByLabel('Days or weeks').selectOption('days')
  await expect(dialog.locator('.chosen-lines li')).toHaveCount(2)
  await expect(dialog.locator('.chosen-lines')).toContainText('→')
  await expect(dialog).toHaveCSS('opacity', '1')
  await expect(dialog.getByRole('region', { name: 'What follows' })).toHaveAttribute('aria-busy', 'false')
  await expectAccessible(page, 'what follows for all')
  await dialog.getByRole('button', { name: 'Move 2 events' }).click()
  await expect(page.getByRole('status').filter({ hasText: '2 events are moved.' })).toBeVisible()
  await expect(bar).toHaveCount(0)
  const cellOf = (title) => page.locator('td', { has: slip(title) })
  const column = (title) => cellOf(title).evaluate((cell) => cell.cellIndex)
  await expect.poll(() => column('Oars')).toBe(3)

  await page.keyboard.press('Control+z')
  await expect(page.getByRole('status').filter({ hasText: 'It is as it was' }).first()).toBeVisible()
  await expect.poll(() => column('Oars')).toBe(1)
  await page.getByRole('link', { name: 'Done lately' }).click()
  await expect(page.getByRole('row', { name: /took back changes of 2: (Oars, Sails|Sails, Oars)/ })).toBeVisible()
})

test('all that match in the list of a year get a tag', async ({ page }) => {
  await signIn(page)
  const calendar = await ownCalendar(page)
  await makeEvents(page, calendar, ['Oars', 'Sails', 'Ropes'])
  await page.goto(`/plan?view=list&span=year&calendar=${calendar.plate}`)
  await page.getByRole('button', { name: 'Choose dates' }).click()
  await page.getByRole('button', { name: 'all 3 that match' }).click()
  await page.getByRole('button', { name: 'Tags', exact: true }).click()
  await page.getByRole('dialog').getByLabel('Tag', { exact: true }).fill('boats')
  await page.getByRole('dialog').getByRole('button', { name: 'Add it to 3 events' }).click()
  await expect(page.getByRole('status').filter({ hasText: '3 events have that tag now.' })).toBeVisible()
  await page.getByRole('link', { name: 'Sails' }).click()
  await expect(page.getByLabel('Tags')).toHaveValue('boats')
})

test('a year is carried to the next: chosen, corrected, and made as drafts', async ({ page }) => {
  await signIn(page)
  const calendar = await ownCalendar(page)
  await makeEvents(page, calendar, ['Oars', 'Sails', 'Ropes'])
  await page.goto('/year')
  const copy = page.getByRole('button', { name: 'Copy to the next year' })
  await expect(copy.or(page.getByRole('link', { name: 'Carry its events forward' })).first()).toBeVisible()
  if (!(await page.getByRole('link', { name: 'Carry its events forward' }).isVisible())) {
    await copy.click()
    await page.getByRole('button', { name: 'Save the year plan' }).click()
    await expect(page.getByRole('status').filter({ hasText: 'saved' }).first()).toBeVisible()
    await page.goto('/year')
  }
  await page.getByRole('link', { name: 'Carry its events forward' }).first().click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('carried to')
  await page.getByLabel('All of these').check()
  await page.getByLabel('All of these').uncheck()
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: `${calendar.plate} ${calendar.name}` })
  await expect(page.getByRole('checkbox', { name: /^Make/ })).toHaveCount(3)
  await page.getByLabel('All of these').check()
  await page.getByRole('checkbox', { name: 'Make “Ropes”' }).uncheck()
  await page.getByLabel('Title of “Oars” next year').fill('Oars and rowlocks')
  await expectAccessible(page, 'a year carried')
  await page.getByRole('button', { name: 'Make 2 events' }).click()
  await expect(page.getByRole('status').filter({ hasText: /2 events are made for .*, as drafts/ })).toBeVisible()
  await page.waitForURL(/span=year/)
  await page.goto(`${page.url()}&calendar=${calendar.plate}`)
  await expect(page.getByRole('link', { name: 'Oars and rowlocks' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Ropes' })).toHaveCount(0)
})

test('a sheet is pasted with its columns in another order, and what is there already is left out', async ({ page }) => {
  await signIn(page)
  const calendar = await ownCalendar(page)
  await makeEvents(page, calendar, ['Oars'])
  await page.goto('/events/several')
  await page.getByLabel('Date, line 1').focus()
  await page.evaluate(
    ({ plate, day }) => {
      const data = new DataTransfer()
      data.setData('text/plain', `What\tCalendar\tDate\tTeacher\tRepeats\nOars\t${plate}\t${day}\tMs Quill\t\nLanterns\t${plate}\t7 December 2027\tMr Reed\tevery Tuesday for 3 dates`)
      document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    },
    { plate: calendar.plate, day: thisWeek(0) },
  )
  await expect(page.getByText('Its columns were recognised by their names. Not used: Teacher.')).toBeVisible()
  await expect(page.getByText('Every Tuesday, all day, 3 dates')).toBeVisible()
  await expect(page.getByText('1 line is there already.')).toBeVisible()
  await expect(page.getByRole('checkbox', { name: 'Make line 1' })).not.toBeChecked()
  await page.getByRole('button', { name: 'Save 1 event' }).click()
  await expect(page.getByRole('status').filter({ hasText: '1 event is saved.' })).toBeVisible()
})

test('a slip is made longer by its lower edge', async ({ page }) => {
  await signIn(page)
  const calendar = await ownCalendar(page)
  await makeEvents(page, calendar, ['Oars'])
  await page.goto(`/plan?view=day&day=${thisWeek(0)}&calendar=${calendar.plate}`)
  const slip = page.locator('.time-slip', { hasText: 'Oars' })
  await expect(slip).toContainText('09:00–10:00')
  const box = await slip.boundingBox()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 2 + box.height / 2, { steps: 5 })
  await page.mouse.up()
  await expect(slip).toContainText('09:00–10:30')
  await slip.focus()
  await page.keyboard.press('Alt+Shift+ArrowUp')
  await expect(slip).toContainText('09:00–10:15')
  await expect(slip).toBeFocused()
})

test('the plan is kept as it is looked at, and opens so', async ({ page }) => {
  await signIn(page)
  const [one, other] = [await ownCalendar(page), await ownCalendar(page)]
  await page.goto('/plan?view=month')
  await page.getByLabel('Narrow by calendar').selectOption({ label: 'choose several …' })
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('button', { name: 'Close' })).toBeVisible()
  for (const { plate } of [one, other]) {
    const find = dialog.getByLabel('Find a calendar')
    if (await find.isVisible()) await find.fill(plate)
    await dialog.getByRole('checkbox', { name: new RegExp(plate) }).check()
  }
  await dialog.getByRole('button', { name: 'Show 2 calendars' }).click()
  await page.getByRole('button', { name: 'Views' }).click()
  await expect(dialog).toHaveCSS('opacity', '1')
  await expectAccessible(page, 'kept views')
  await dialog.getByLabel('Keep the plan as you look at it now').fill(`Watches ${one.plate}`)
  await dialog.getByRole('checkbox', { name: 'For all who edit' }).check()
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: `“Watches ${one.plate}” is kept` })).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()

  await page.goto('/calendars')
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Month', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await expect(page).toHaveURL(new RegExp(`calendar=${one.plate}%2C${other.plate}|calendar=${other.plate}%2C${one.plate}`))
  await page.getByRole('button', { name: 'Views' }).click()
  await dialog.getByRole('button', { name: `Remove the view “Watches ${one.plate}”` }).click()
  await expect(dialog.getByRole('button', { name: `Watches ${one.plate}`, exact: true })).toHaveCount(0)
})
