import { expect } from '@playwright/test'
import ICAL from 'ical.js'
import { demoWeek, makeCalendarByForm, say, signInByForm, site, test, thisWeek } from './valtro.mjs'

/** The first event of that title in a feed, read by a library that is not our writer. */
async function inFeed(request, address, title) {
  const response = await request.get(address)
  expect(response.headers()['content-type']).toBe('text/calendar; charset=utf-8')
  const calendar = new ICAL.Component(ICAL.parse(await response.text()))
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone)
  return calendar
    .getAllSubcomponents('vevent')
    .map((component) => new ICAL.Event(component))
    .find((event) => event.summary === title)
}

test('from a new calendar to somebody’s website and feed, and a change that arrives there by itself', async ({ page, context, request }) => {
  await signInByForm(page)
  const calendar = await makeCalendarByForm(page)
  const wednesday = thisWeek(2)

  await test.step('a one-time event, by a click on its day in the lane', async () => {
    await page.goto('/plan')
    await page.getByRole('button', { name: `New event on ${calendar.name}, ${say(wednesday)}` }).click()
    await expect(page.getByRole('radio', { name: new RegExp(calendar.name) })).toBeChecked()
    await page.getByLabel('Title').fill('Lantern evening')
    await page.getByLabel('Start time').fill('6.30pm')
    await page.getByLabel('End time').fill('2030')
    await page.getByRole('combobox', { name: 'Where' }).fill('Hall')
    await page.getByRole('textbox', { name: 'About' }).fill('Please sign up')
    await page.getByRole('textbox', { name: 'About' }).press('Control+a')
    await page.getByRole('button', { name: 'Link', exact: true }).click()
    await page.getByLabel('Link to').fill('https://pinewick.example/sign-up')
    await page.getByRole('button', { name: 'Set the link' }).click()
    await expect(page.getByRole('complementary')).toContainText('18:30 to 20:30')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByRole('status').filter({ hasText: 'Lantern evening' })).toContainText('Everyone sees it')
    await expect(page.getByRole('link', { name: /18:30.*Lantern evening/ })).toBeVisible()
  })

  await test.step('a weekly one, whose dates are listed before it is saved', async () => {
    await page.getByRole('button', { name: `New event on ${calendar.name}, ${say(thisWeek(1))}` }).click()
    await page.getByLabel('Title').fill('Wick cutting')
    await page.getByLabel('Start time').fill('14:00')
    await page.getByLabel('End time').fill('15:30')
    await page.getByLabel('Once or every').selectOption('every')
    await page.getByText('Th', { exact: true }).click()
    await page.getByLabel('How it ends').selectOption('after')
    await page.getByLabel('Number of dates').fill('6')
    await expect(page.getByRole('complementary')).toContainText('Every Tuesday and Thursday, 14:00 to 15:30, 6 dates, not in breaks.')
    await expect(page.getByRole('list', { name: 'Dates' }).getByRole('listitem')).toHaveCount(6)
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByRole('link', { name: /Wick cutting/ })).toHaveCount(2)
  })

  let feed = ''
  await test.step('publishing: snippet, feed link, page link, code', async () => {
    await page.goto(`/calendars/${calendar.id}/publishing`)
    await expect(page.getByRole('img', { name: /QR code/ })).toBeVisible()
    feed = await page.getByLabel('Feed link').inputValue()
    expect(await page.getByLabel('Link that opens the program').inputValue()).toBe(feed.replace('http:', 'webcal:'))
    expect(await page.getByLabel('Page link').inputValue()).toBe(feed.replace(/\.ics$/, ''))
    await page.getByRole('button', { name: 'Copy the snippet' }).click()
    await expect(page.getByRole('status').filter({ hasText: 'Copied' })).toBeVisible()
  })

  const website = await context.newPage()
  const embed = website.frameLocator('section iframe')
  await test.step('pasted into the HTML block of a website on another origin', async () => {
    await website.goto(`${site}/edit`)
    await website.getByLabel('Wide column').focus()
    await website.keyboard.press('Control+a')
    await website.keyboard.press('Control+v')
    await website.getByLabel('Sidebar, 300 px').fill(`<iframe src="${feed.replace(/\.ics$/, '/embed')}" title="${calendar.name}" width="100%" height="640"></iframe>`)
    await website.getByRole('button', { name: 'Save the page' }).click()
    await expect(embed.getByRole('heading', { name: calendar.name })).toBeVisible()
  })

  await test.step('the month, the details with links that leave the frame, other months, the list', async () => {
    await embed.getByRole('button', { name: /18:30 Lantern evening/ }).click()
    const details = embed.getByRole('region', { name: 'Lantern evening' })
    await expect(details).toContainText('18:30–20:30')
    await expect(details.getByRole('link', { name: 'Please sign up' })).toHaveAttribute('target', '_blank')
    await details.press('Escape')
    await expect(details).toBeHidden()

    const thisMonth = await embed.getByRole('heading', { level: 2 }).textContent()
    await embed.getByRole('button', { name: 'Later' }).click()
    await expect(embed.getByRole('heading', { level: 2 })).not.toHaveText(thisMonth)
    await embed.getByRole('button', { name: 'Later' }).click()
    await expect(embed.getByRole('button', { name: /Lantern evening/ })).toHaveCount(0)
    await embed.getByRole('button', { name: 'Today' }).click()
    await expect(embed.getByRole('heading', { level: 2 })).toHaveText(thisMonth)

    await embed.getByRole('button', { name: 'List', exact: true }).click()
    await embed.getByRole('button', { name: 'Subscribe' }).click()
    await expect(embed.getByRole('link', { name: 'Open in a calendar program' })).toHaveAttribute('href', feed.replace('http:', 'webcal:'))
    await embed.getByRole('button', { name: 'Close' }).click()
    await embed.getByRole('button', { name: 'Month', exact: true }).click()
  })

  await test.step('the frame is as high as what is in it, and the sidebar shows the small month', async () => {
    const inner = await embed.locator('html').evaluate((element) => element.getBoundingClientRect().height)
    await expect.poll(async () => Math.abs((await website.locator('section iframe').boundingBox()).height - inner)).toBeLessThan(3)
    const small = website.frameLocator('aside iframe')
    await small.getByRole('button', { name: new RegExp(`${say(wednesday)}, 1 on`) }).click()
    await expect(small.getByRole('button', { name: /Lantern evening/ })).toBeVisible()
  })

  await test.step('a time changed on the plan arrives on the open page by itself, and in the feed', async () => {
    await page.goto('/plan')
    await page.getByRole('link', { name: /Lantern evening/ }).click()
    await page.getByLabel('Start time').fill('17:00')
    const saved = page.waitForResponse((response) => response.url().endsWith('/changes') && response.ok())
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await saved
    await expect(embed.getByRole('button', { name: /17:00 Lantern evening/ })).toBeVisible()
    const event = await inFeed(request, feed, 'Lantern evening')
    expect(event.startDate.toString()).toBe(`${wednesday}T17:00:00`)
    // The end has moved along.
    expect(event.endDate.toString()).toBe(`${wednesday}T19:00:00`)
    expect(event.startDate.zone.tzid).toBe('America/Halifax')
    expect(event.component.getFirstPropertyValue('sequence')).toBe(1)
  })

  await test.step('closed again, the open page says so and the feed is gone', async () => {
    await page.goto('/calendars')
    await page.getByRole('button', { name: new RegExp(`${calendar.name}, members`) }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Nothing' }).click()
    await expect(page.getByRole('dialog')).toContainText('out of sight for everyone')
    await page.getByRole('button', { name: 'Close for members' }).click()
    await expect(embed.getByText('not open any more')).toBeVisible()
    expect((await request.get(feed)).status()).toBe(404)
  })
})

test('without JavaScript a reading page is as it was painted', { tag: ['@days', '@demo'] }, async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false, locale: 'en-GB' })
  const page = await context.newPage()
  await page.goto(`/c/pinewick/whole-school?date=${demoWeek(2)}`)
  await expect(page.getByRole('link', { name: /18:30 Open harbour evening/ })).toBeVisible()
  await page.getByRole('link', { name: /18:30 Open harbour evening/ }).click()
  await expect(page.getByRole('link', { name: 'Sign up' }).first()).toBeVisible()
  await context.close()
})

test('a reading page needs one answer for its first view, nothing from elsewhere, and at most 90 kB of JavaScript', async ({ page }) => {
  const { gzipSync } = await import('node:zlib')
  const responses = []
  page.on('response', (response) => responses.push(response))
  await page.goto(`/c/pinewick/whole-school?date=${demoWeek(2)}`)
  await expect(page.getByRole('button', { name: /Open harbour evening/ })).toBeVisible()
  const scripts = responses.filter((response) => response.request().resourceType() === 'script')
  const sizes = await Promise.all(scripts.map(async (script) => gzipSync(await script.body()).length))
  expect(sizes.reduce((sum, size) => sum + size, 0)).toBeLessThan(90_000)
  expect(responses.filter((response) => ['xhr', 'fetch'].includes(response.request().resourceType()))).toEqual([])
  expect(new Set(responses.map((response) => new URL(response.url()).origin)).size).toBe(1)
})
