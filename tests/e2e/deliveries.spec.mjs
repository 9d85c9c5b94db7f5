import { expect } from '@playwright/test'
import { randomUUID } from 'node:crypto'
import { expectAccessible, makeCalendar, makeEvents, send, signIn, site, test } from './valtro.mjs'

test('who has which version is seen as programs come: all have it, then something changes and some have it', async ({
  page,
  request,
}) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  await makeEvents(page, calendar, ['Sail repair'], 1)
  const { id, addresses } = await (
    await send(page, '/api/editions', {
      edition: { name: `Sails ${calendar.plate}`, sources: [{ calendarId: calendar.id }] },
      isOut: true,
    })
  ).json()
  const feed = new URL(addresses.feed).pathname
  const fetch = async (name, etag) =>
    request.get(feed, { headers: { 'User-Agent': name, ...(etag && { 'If-None-Match': etag }) } })
  const first = await fetch('Tidebook/3 (Android 15)')
  await fetch('Sternpost/9 (Windows NT 10.0)')
  const shown = page.locator('.big-numbers dd').first()

  await test.step('two programs have it', async () => {
    await expect
      .poll(async () => {
        await page.goto(`/editions/${id}/deliveries`)
        return shown.textContent()
      })
      .toBe('2')
    await page.getByText('The same as a table').click()
    await expect(page.locator('.chart-table tbody tr').first().getByRole('cell').first()).toHaveText('2')
  })

  await test.step('after a change one of them asks again', async () => {
    await makeEvents(page, calendar, ['Rope walk'], 2)
    await expect.poll(async () => (await fetch('Tidebook/3 (Android 15)', first.headers().etag)).status()).toBe(200)
    const link = page.getByRole('row', { name: `Sails ${calendar.plate}` }).getByRole('link', { name: /who has/ })
    await expect(async () => {
      await page.goto('/editions')
      await expect(link).toContainText('1 of 2', { timeout: 2000 })
    }).toPass()
  })
})

test('a program that subscribes shows a change once it has asked again, however long ago it went out', async ({ page, request }) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  await makeEvents(page, calendar, ['Sail repair'], 1)
  const { addresses } = await (
    await send(page, '/api/editions', {
      edition: { name: `Decks ${calendar.plate}`, sources: [{ calendarId: calendar.id }] },
      isOut: true,
    })
  ).json()
  const feed = async () => (await request.get(new URL(addresses.feed).pathname)).text()
  await expect.poll(feed).toContain('Sail repair')
  const program = page.locator('article').filter({ hasText: `Decks ${calendar.plate}` })
  const shows = (title) =>
    expect(async () => {
      await page.goto(`${site}/subscriber`)
      await expect(program).toContainText(title, { timeout: 2000 })
    }).toPass()
  await page.goto(`${site}/subscriber`)
  await page.locator('[name=feed]').fill(addresses.feed)
  await page.locator('[name=minutes]').selectOption('60')
  await page.getByRole('button', { name: 'Subscribe' }).click()
  await shows('Sail repair')
  await makeEvents(page, calendar, ['Rope walk'], 2)
  await expect.poll(feed).toContain('Rope walk')
  await page.goto(`${site}/subscriber`)
  await expect(program).not.toContainText('Rope walk')
  await page.getByRole('button', { name: 'an hour later' }).click()
  await shows('Rope walk')
})

test('a reader asks to be told by mail, says yes from the mailbox, and ends it', async ({ page, request }) => {
  const address = `noor.${randomUUID()}@families.example`
  await page.goto('/c/pinewick/juniors-for-families')
  await page.getByRole('button', { name: 'Subscribe' }).click()
  const [form] = await Promise.all([
    page.waitForEvent('popup'),
    page.getByRole('link', { name: 'Or be told by mail what changes' }).click(),
  ])
  await expectAccessible(form, 'the form that asks for mails')
  await form.getByLabel('Your mail address').fill(address)
  await form.getByLabel('on Mondays').check()
  await form.getByRole('button', { name: 'Ask for it' }).click()
  await expect(form.getByText('Look into your mailbox')).toBeVisible()
  let mail
  await expect
    .poll(async () => (mail = (await (await request.get(`${site}/mailbox.json?to=${encodeURIComponent(address)}`)).json())[0]))
    .toBeTruthy()
  await page.goto(new URL(mail.text.match(/https?:\S+\/mail\/\S+/)[0]).pathname)
  await page.getByRole('button', { name: 'Yes, tell me' }).click()
  await expect(page.getByText(`${address} is told what changes in “Dates for junior families”, on Mondays.`)).toBeVisible()
  await page.getByRole('button', { name: 'No more mails' }).click()
  await expect(page.getByText('the address is erased')).toBeVisible()
})
