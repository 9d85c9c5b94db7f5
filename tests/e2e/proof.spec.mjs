import { expect } from '@playwright/test'
import { makeCalendar, makeEvents, send, signIn, test, thisWeek } from './valtro.mjs'

test('an edition is made, read before its readers do, put right, and let out; and a date says why it is missing', async ({ page, request }) => {
  await signIn(page)
  const [one, other, closed] = [await makeCalendar(page), await makeCalendar(page), await makeCalendar(page, { forWhom: 'Members' })]
  await makeEvents(page, one, ['Wick evening'], 7)
  await makeEvents(page, other, ['Wick evening'], 7)
  await makeEvents(page, closed, [`Oil talk ${closed.plate}`], 8)
  const { id, addresses } = await (
    await send(page, '/api/editions', {
      edition: { name: `Wicks ${one.plate}`, mergesLookAlikes: false, sources: [one, other, closed].map((calendar) => ({ calendarId: calendar.id })) },
    })
  ).json()
  const address = new URL(addresses.page).pathname

  await test.step('nobody has it yet, and the proof names what is wrong', async () => {
    expect((await request.get(address)).status()).toBe(404)
    await page.goto(`/editions/${id}/proof`)
    await expect(page.getByRole('heading', { name: `${closed.name} shows everyone nothing` })).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Wick evening stands there 2 times' })).toBeVisible()
  })

  await test.step('a press shows what another setting would do, and saves it', async () => {
    await page.getByRole('button', { name: 'Make them one …' }).click()
    await expect(page.getByRole('dialog')).toContainText('2 entries become 1.')
    await page.getByRole('button', { name: 'Save it' }).click()
    await expect(page.getByRole('heading', { name: 'Wick evening stands there 2 times' })).toHaveCount(0)
    await expect(page.getByText('with 1 look-alike')).toBeVisible()
  })

  await test.step('an event that is missing says which rule kept it out, and what may stay so is put off', async () => {
    await page.getByLabel('Why is it not here?').fill(`Oil talk ${closed.plate}`)
    await page.getByRole('list', { name: 'Which event' }).getByRole('button').click()
    await expect(page.locator('.decided')).toContainText('tell this audience nothing of it')
    await page.getByRole('button', { name: 'Close', exact: true }).click()
    await page.getByRole('button', { name: 'Put off …' }).first().click()
    await page.getByLabel('Why it may stay so').fill('It opens in spring')
    await page.getByRole('button', { name: 'Put it off', exact: true }).click()
    await expect(page.getByText('Nothing is wrong with it.')).toBeVisible()
  })

  await test.step('let out, it is there; and a date says of each edition whether it goes there', async () => {
    await page.getByRole('button', { name: 'Let it go out' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Let it go out' }).click()
    await expect(page.getByText('Nobody outside knows of it yet')).toHaveCount(0)
    await expect.poll(async () => (await request.get(address)).status()).toBe(200)
    await page.goto(`/plan?view=list&calendar=${one.plate}&day=${thisWeek(7)}`)
    await page.getByRole('link', { name: 'Wick evening' }).click()
    await page.getByRole('link', { name: 'Each edition, and why' }).click()
    await expect(page.getByRole('listitem').filter({ hasText: `Wicks ${one.plate}` })).toContainText('Goes there')
  })
})
