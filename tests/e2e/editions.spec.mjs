import { expect } from '@playwright/test'
import { demoWeek, inHalifax, signIn, site, test, thisWeek, today } from './valtro.mjs'

test('families get one page of two classes and the school, and a change of its look reaches the site that holds it', async ({ page, context }) => {
  await signIn(page)
  await page.goto('/editions')
  await page.getByRole('link', { name: 'New edition' }).click()
  const preview = page.frameLocator('.preview-frames iframe:not(.is-leaving)')
  let snippet = ''

  await test.step('sources by group and one by one; what is not open is named with what is missing', async () => {
    await page.getByRole('button', { name: 'The whole school', exact: true }).click()
    await page.getByRole('textbox', { name: 'Name of the edition' }).fill('Two watches')
    await page.getByRole('button', { name: 'Juniors', exact: true }).click()
    await page.getByRole('checkbox', { name: 'Whole school' }).check()
    await page.getByRole('checkbox', { name: 'Rowing club' }).check()
    await expect(page.getByText('Rowing club is closed to everyone.')).toBeVisible()
    await page.getByRole('button', { name: 'Leave it out' }).click()
    await expect(page.getByText('Rowing club is closed to everyone.')).toBeHidden()
  })

  await test.step('the preview is the reader itself: each entry once, with all its plates', async () => {
    await page.getByRole('button', { name: 'Page 1000' }).click()
    await expect(preview.getByRole('button', { name: /PW SCH SW.*Open harbour evening/ })).toHaveCount(1)
    await page.getByLabel('Opens as').selectOption('list')
    await expect(preview.locator('.days')).toBeVisible()
  })

  await test.step('colours that nobody could read are refused with their ratio, and the typing stays', async () => {
    await page.getByRole('button', { name: 'Choose colours one by one …' }).click()
    await page.locator('.colour-fields').getByLabel('text').fill('#aaaaaa')
    await expect(page.getByText(/Text on the page has a contrast of 2\.\d to 1/)).toBeVisible()
    await expect(page.getByRole('textbox', { name: 'Name of the edition' })).toHaveValue('Two watches')
    await page.getByRole('button', { name: 'All as the palette has them' }).click()
  })

  await test.step('made, its snippet goes into somebody’s page', async () => {
    await page.getByRole('button', { name: 'Make the edition' }).click()
    await expect(page.getByText('Nobody outside knows of it yet')).toBeVisible()
    expect((await page.request.get('/c/pinewick/two-watches')).status()).toBe(404)
    await page.getByRole('button', { name: 'Let it go out' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Let it go out' }).click()
    await expect(page.getByText('Nobody outside knows of it yet')).toBeHidden()
    await page.getByRole('link', { name: 'Two watches' }).click()
    snippet = await page.getByLabel('Snippet that fits its height').inputValue()
    expect(snippet).toContain('/c/pinewick/two-watches/embed')
    await page.getByRole('button', { name: 'QR code' }).click()
    await expect(page.getByRole('img', { name: 'QR code of the page' })).toBeVisible()
  })

  const website = await context.newPage()
  // A page of its own on the other origin: the families' page is another test's.
  await website.goto(`${site}/learning`)
  await website.setContent(`<aside>${snippet}</aside>`)
  const embed = website.frameLocator('aside iframe')
  await expect(embed.getByRole('heading', { name: 'Two watches' })).toBeVisible()

  await test.step('renamed for its readers: the open page says so by itself', async () => {
    await page.getByLabel('Title on the page').fill('Dates of both watches')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByRole('status').filter({ hasText: 'Two watches is saved' })).toBeVisible()
    await expect(embed.getByRole('heading', { name: 'Dates of both watches' })).toBeVisible({ timeout: 5_000 })
  })

  await test.step('a new event says that it will go there, and not any more once its calendar is another', async () => {
    await page.goto('/events/new')
    await page.getByLabel('Title', { exact: true }).fill('Where it goes')
    await page.getByRole('radio', { name: /Starboard Watch/ }).check({ force: true })
    const goes = page.getByRole('complementary', { name: 'What follows from this' }).getByRole('listitem')
    await expect(goes.filter({ hasText: 'Two watches for everyone' })).toHaveCount(1)
    await page.getByRole('radio', { name: /Slipway and hall/ }).check({ force: true })
    await expect(goes.filter({ hasText: 'When slipway and hall are taken for everyone' })).toHaveCount(1)
    await expect(goes.filter({ hasText: 'Two watches' })).toHaveCount(0)
  })
})

test('a reader narrows the page to one watch, keeps that, searches, goes to a day and takes a feed of just that', { tag: ['@days', '@demo'] }, async ({ page, request }) => {
  await page.goto('/c/pinewick/juniors-for-families')
  const show = page.getByRole('group', { name: 'Show' })
  await expect(page.getByRole('button', { name: /SW .*Boat lab/ }).first()).toBeVisible()
  await show.getByRole('button', { name: 'Starboard Watch' }).click()
  await show.getByRole('button', { name: 'Whole school' }).click()
  await expect(page.getByRole('button', { name: /SW .*Boat lab/ })).toHaveCount(0)
  await expect(page).toHaveURL(/only=port-watch$/)

  await page.goto('/c/pinewick/juniors-for-families')
  await expect(show.getByRole('button', { name: 'Starboard Watch' })).toHaveAttribute('aria-pressed', 'false')
  await page.getByRole('button', { name: 'Subscribe' }).click()
  const feed = await page.getByLabel('Or give your program this address').inputValue()
  expect(feed).toMatch(/\.ics\?only=port-watch$/)
  const text = await (await request.get(feed)).text()
  expect(text).toContain('SUMMARY:PW Boat lab')
  expect(text).not.toContain('SUMMARY:SW Boat lab')

  await page.getByRole('searchbox', { name: 'Search' }).fill('chart exercise')
  await expect(page.getByRole('status').filter({ hasText: '1 found' })).toBeVisible()
  await page.getByRole('searchbox', { name: 'Search' }).fill('')

  await page.getByRole('button', { name: 'Week', exact: true }).click()
  await page.getByRole('button', { name: /^Go to a date/ }).click()
  // A week on, by the keyboard, to its first day.
  await page.keyboard.press('ArrowDown')
  for (let day = new Date(today()).getUTCDay() || 7; day > 1; day--) await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 2 })).toContainText(String(Number(thisWeek(7).slice(8))))
  await expect(page).toHaveURL(new RegExp(`only=port-watch&view=week&date=${thisWeek(7)}`))
})

test('the days of a month are walked by the arrow keys, and Enter opens what is on', { tag: ['@days', '@demo'] }, async ({ page }) => {
  await page.goto(`/c/pinewick/whole-school?date=${demoWeek(2)}`)
  const day = (name) => page.getByRole('button', { name: new RegExp(name) })
  await page.getByRole('searchbox').focus()
  await day(', .*on$').and(page.locator('[tabindex="0"]')).first().focus()
  const before = await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))
  await page.keyboard.press('ArrowRight')
  const after = await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))
  expect(after).not.toBe(before)
  expect(await page.locator('.weeks [data-cell][tabindex="0"]').count()).toBe(1)
  const entry = page.getByRole('button', { name: /Open harbour evening/ })
  await entry.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Open harbour evening' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(entry).toBeFocused()
})

test('what lasts for days opens where it was pressed, and nowhere else', { tag: ['@days', '@demo'] }, async ({ page }) => {
  await page.goto(`/c/pinewick/whole-school?date=${demoWeek(-14)}`)
  const regatta = page.locator('.weeks').getByRole('button', { name: /Autumn regatta/ })
  await regatta.last().click()
  const details = page.getByRole('region', { name: 'Autumn regatta' })
  await expect(details).toBeFocused()
  await expect(details).toHaveCount(1)
  await expect(page.locator('[aria-expanded="true"][data-entry]')).toHaveCount(1)
  await expect(regatta.last()).toHaveAttribute('aria-expanded', 'true')
  await page.keyboard.press('Escape')
  await expect(regatta.last()).toBeFocused()

  await page.goto(`/c/pinewick/whole-school?view=list&date=${demoWeek(-14)}`)
  await page.getByRole('button', { name: /Autumn regatta/ }).first().click()
  await expect(details).toHaveCount(1)
})

test('an entry’s own page has a picture, a map, its links and files for programs, and says the reader’s own time', { tag: ['@days', '@demo'] }, async ({ browser }) => {
  const page = await (await browser.newContext({ locale: 'en-GB', timezoneId: 'Europe/Oslo' })).newPage()
  await page.goto(`/c/pinewick/whole-school?date=${demoWeek(2)}`)
  await page.getByRole('button', { name: /Open harbour evening/ }).click()
  const details = page.getByRole('region', { name: 'Open harbour evening' })
  await expect(details).toContainText('Your time: ')
  const address = await details.getByRole('link', { name: 'Its own page' }).getAttribute('href')
  await page.goto(address)
  await expect(page.getByRole('heading', { name: 'Open harbour evening' })).toBeVisible()
  await expect(page.getByRole('img', { name: /Boats at the pier in the evening/ })).toBeVisible()
  // No wider than it is shown, in the newer of two forms.
  expect(await page.getByRole('img').evaluate((picture) => picture.currentSrc)).toMatch(/\?width=960$/)
  await expect(page.getByRole('link', { name: 'Map' })).toHaveAttribute('href', /^geo:43\./)
  await expect(page.getByRole('link', { name: 'Programme' })).toBeVisible()
  await expect(page.getByText('Your time: ')).toContainText(new Intl.DateTimeFormat('en-GB', { timeStyle: 'short', timeZone: 'Europe/Oslo' }).format(inHalifax(`${demoWeek(2)}T18:30`)))
  const file = await page.request.get(await page.getByRole('link', { name: 'this date' }).evaluate((link) => link.href))
  expect(await file.text()).toContain('SUMMARY:Open harbour evening')
  await page.context().close()
})

test('every form of delivery works on a site that takes no other', { tag: ['@days', '@demo'] }, async ({ page }) => {
  await test.step('a learning platform that takes only a link', async () => {
    await page.goto(`${site}/learning`)
    await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Dates for junior families' })).toBeVisible()
  })
  await test.step('a blog that strips scripts', async () => {
    await page.goto(`${site}/blog`)
    expect(await page.locator('script').count()).toBe(0)
    await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Great days at Pinewick' })).toBeVisible()
    await expect(page.frameLocator('iframe').getByRole('button', { name: /Open harbour evening/ }).getByRole('presentation').or(page.frameLocator('iframe').locator('.card img')).first()).toBeVisible()
  })
  await test.step('a site that resolves oEmbed', async () => {
    await page.goto(`${site}/club`)
    await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Whole school', level: 1 })).toBeVisible()
  })
})

test('a member reads the edition for members and takes an address of their own, which a stranger cannot guess', async ({ page, request }) => {
  await signIn(page, 'di')
  await page.goto('/editions')
  await page.getByRole('link', { name: 'Read Everything, for the staff' }).click()
  await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Everything, for the staff' })).toBeVisible()
  await page.getByRole('button', { name: 'Make my own address' }).click()
  const feed = await page.getByLabel('Your feed link').inputValue()
  expect(await (await request.get(feed)).text()).toContain('BEGIN:VCALENDAR')
  await page.getByRole('button', { name: 'Replace it …' }).click()
  await page.getByRole('button', { name: 'Replace the address' }).click()
  await expect.poll(async () => (await request.get(feed)).status()).toBe(410)
})
