import { expect } from '@playwright/test'
import { readdirSync, readFileSync } from 'node:fs'
import { chooseCalendar, signIn, signInByForm, test, thisWeek } from './valtro.mjs'

const words = new URL('../../src/words/', import.meta.url)

/** All messages of a language, by catalogue and name. */
function messages(language) {
  const all = new Map()
  const add = (name, value) => (typeof value === 'string' ? all.set(name, value) : Object.entries(value).forEach(([key, one]) => add(`${name}.${key}`, one)))
  for (const file of readdirSync(new URL(`${language}/`, words))) add(file, JSON.parse(readFileSync(new URL(`${language}/${file}`, words), 'utf8')))
  return all
}

/** What is English and nothing else: a test for each message of the catalogues that German says otherwise. */
function englishOnly() {
  const german = messages('de')
  const known = new Set(german.values())
  // Data of the demo that is called as an example of the forms.
  const named = new Set(['Assessment', 'Juniors for families'])
  return [...messages('en')]
    .filter(([name, message]) => !/^(typing|language|rules|reader)\.json/.test(name) && german.get(name) !== message && !known.has(message) && !named.has(message))
    .map(([name, message]) => ({ name, message, fixed: message.replace(/\{\{\w+\}\}|<\/?\d>/g, ' ') }))
    .filter(({ fixed }) => /[a-z]{2,}[^a-z]+[a-z]{2,}/i.test(fixed) || (/^\s*[A-Za-z]{5,}\W*$/.test(fixed) && !/\{\{/.test(fixed)))
    .map(({ name, message }) => ({ name, form: `^${message.replace(/<\/?\d>/g, '').replace(/[.*+?^$()|[\]\\]/g, '\\$&').replace(/\{\{\w+\}\}/g, '.+').replace(/[{}]/g, '\\$&')}$` }))
}

const english = englishOnly()

/** Everything that a screen says, seen or read aloud; what stands in frames is a reader's. */
async function saidOn(page) {
  return page.evaluate(() => {
    const said = new Set()
    const add = (text) => text && said.add(text.replace(/\s+/g, ' ').trim())
    for (const element of document.body.querySelectorAll('*:not(script, style, iframe)')) {
      for (const name of ['aria-label', 'title', 'placeholder', 'alt']) add(element.getAttribute(name))
      if (element.children.length < 6 && element.textContent.length < 900) add(element.textContent)
      for (const node of element.childNodes) if (node.nodeType === Node.TEXT_NODE) add(node.textContent)
    }
    return [...said].filter(Boolean)
  })
}

async function expectGerman(page, where) {
  const said = await saidOn(page)
  expect(said.length, `${where} says something`).toBeGreaterThan(3)
  const forms = english.map(({ name, form }) => ({ name, form: new RegExp(form) }))
  const found = said.flatMap((text) => forms.filter(({ form }) => form.test(text)).map(({ name }) => `${where}: “${text}” (${name})`))
  expect(found).toEqual([])
  expect(await page.evaluate(() => document.documentElement.lang)).toBe('de')
}

test('the catalogues tell the languages apart', () => {
  expect(english.length).toBeGreaterThan(900)
})

test('whoever chose German finds it after signing in, also in an English browser', async ({ page }) => {
  await signInByForm(page, 'jo', 'Seiten')
  await expect(page.getByRole('link', { name: 'Neuer Termin' })).toBeVisible()
  await page.getByLabel('Einen Termin in einer Zeile sagen').fill(`Funkprobe am ${thisWeek(8).slice(8)}.${thisWeek(8).slice(5, 7)}.${thisWeek(8).slice(0, 4)} 14–15.30 Uhr im Saal`)
  await page.getByRole('button', { name: 'Lesen' }).click()
  await expect(page.getByText('14:00 bis 15:30')).toBeVisible()
  await expectGerman(page, 'a line')
  await page.getByRole('button', { name: 'ein Ort: Saal' }).click()
  await page.getByRole('button', { name: 'Das ganze Formular öffnen' }).click()
  await expect(page.getByRole('textbox', { name: 'Titel' })).toHaveValue('Funkprobe')
  await page.getByLabel('Ende', { exact: true }).fill('13 Uhr')
  await page.getByLabel('Ende', { exact: true }).blur()
  await page.getByRole('button', { name: 'Speichern', exact: true }).click()
  await expect(page.getByText('Der Termin endet, bevor er beginnt.').first()).toBeVisible()
  await expectGerman(page, 'a refusal')
  await page.getByLabel('Ende', { exact: true }).fill('16 Uhr')
  await page.getByRole('button', { name: 'Speichern', exact: true }).click()
  await expect(page.getByRole('status').getByText('„Funkprobe“ ist auf Senior Crew gespeichert.')).toBeVisible()
})

test.describe('in a German browser', () => {
  test.use({ locale: 'de-DE' })

  test('every screen is German before anybody is signed in', async ({ page }) => {
    for (const address of ['/plan', '/forgotten', '/reset#x', '/invitation#x']) {
      await page.goto(address)
      await expect(page.getByRole('heading').first()).toBeVisible()
      await expectGerman(page, address)
    }
    await page.goto('/plan')
    await page.getByLabel('E-Mail-Adresse').fill('ada@pinewick.example')
    await page.getByLabel('Passwort').fill('not-the-password')
    await page.getByRole('button', { name: 'Anmelden' }).click()
    await expect(page.getByText('Die E-Mail-Adresse oder das Passwort stimmt nicht.')).toBeVisible()
    await expectGerman(page, 'a wrong password')
  })

  test('every screen is German', async ({ page }) => {
    // Some thirty screens, one after the other.
    test.setTimeout(240_000)
    await signIn(page)
    const open = async (address, shown) => {
      await page.goto(address)
      await expect(page.locator(shown).first()).toBeVisible()
      await expectGerman(page, address)
    }
    for (const view of ['weeks=1', 'weeks=6', 'view=month', 'view=week', 'view=day', 'view=list']) await open(`/plan?${view}`, '.plan-body')
    await open('/plan/sheet', '.wall-sheet')
    await page.goto('/plan?view=list')
    await page.getByRole('link', { name: /Boat lab/ }).first().click()
    await expect(page.getByRole('list', { name: 'Termine' })).toBeVisible()
    await expectGerman(page, 'an event')
    await page.getByRole('button', { name: 'Termine absagen' }).click()
    await expect(page.getByRole('dialog')).toBeVisible()
    await expectGerman(page, 'which dates')
    await page.getByRole('button', { name: 'Lassen, wie es ist' }).click()
    await page.getByRole('link', { name: 'Alle früheren Fassungen' }).click()
    await expect(page.locator('.history li').first()).toBeVisible()
    await expectGerman(page, 'history')
    await open(`/events/new?day=${thisWeek(1)}`, '.calendar-choice')
    await chooseCalendar(page, 'Port Watch')
    await expect(page.locator('.dates')).toBeVisible()
    await page.getByLabel('Einmal oder wiederholt').selectOption('every')
    await expect(page.getByLabel('Wie es endet')).toBeVisible()
    for (const pattern of ['daily', 'monthly', 'yearly', 'text', 'weekly']) {
      await page.getByLabel('Tage, Wochen, Monate oder Jahre').selectOption(pattern)
      await expectGerman(page, `a pattern, ${pattern}`)
    }
    for (const more of ['Links', 'Dateien', 'Untertitel', 'Ansprechperson', 'Notizen für die Redaktion']) await page.getByRole('group', { name: 'Mehr zu sagen' }).getByRole('button', { name: more }).click()
    await page.getByRole('button', { name: 'Weniger sagen …' }).click()
    await page.getByRole('button', { name: 'Auf weitere setzen …' }).click()
    await page.getByRole('button', { name: 'Tag: aus einem Monat wählen' }).click()
    await expectGerman(page, 'all fields of an event')
    await open('/events/several', '.several-table')
    await page.getByLabel('Tag, Zeile 1').fill('irgendwann')
    await expect(page.getByText('„irgendwann“ ist kein Tag.')).toBeVisible()
    await expectGerman(page, 'a row that is not right')
    await open('/bin', 'h1')
    await open('/intake', '.bring-events')
    await open('/intake/follow', '.follow')
    const [edition] = await (await page.request.get('/api/editions')).json()
    await open(`/elsewhere/new?edition=${edition.id}`, '.follow')
    const juniors = (await (await page.request.get('/api/editions')).json()).find((one) => one.name === 'Juniors for families')
    await open(`/editions/${juniors.id}/proof`, '.finding')
    await page.getByRole('button', { name: /warum/ }).first().click()
    await expect(page.locator('.verdicts li').first()).toBeVisible()
    await expectGerman(page, 'why a date is there')
    await open('/needs', '.finding')
    await open('/help', '.example')
    await open('/year', '.spans')
    await open('/lists', '.plain-list')
    await page.getByRole('button', { name: /^Ändern/ }).first().click()
    await expectGerman(page, 'an entry of a list')
    await open('/people', '.plain-table')
    await page.getByRole('button', { name: 'Jemanden einladen' }).click()
    await expect(page.getByRole('dialog')).toBeVisible()
    await expectGerman(page, 'inviting')
    await open('/people?view=audit', '.plain-table')
    await open('/sign-off', '.submission')
    await open('/sign-off?mine=1', 'h1')
    await open('/account', '.block')
    await open('/work', 'h1')
    await open('/nowhere', 'h1')
    await open('/calendars', '.audiences')
    await page.getByRole('button', { name: /Rowing club, alle/ }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Vollständig' }).click()
    await expect(page.getByRole('dialog').getByText(/werden öffentlich/)).toBeVisible()
    await expectGerman(page, 'a cell of the table')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Mehr zu Rowing club' }).click()
    await page.getByRole('button', { name: 'Entfernen …' }).click()
    await expect(page.getByRole('dialog').getByRole('listitem').first()).toBeVisible()
    await expectGerman(page, 'removing a calendar')
    await open('/calendars/new', '.swatch')
    await page.goto('/calendars')
    await page.getByRole('link', { name: 'Einstellungen von Rowing club' }).click()
    await expect(page.locator('.swatch').first()).toBeVisible()
    await expectGerman(page, 'a calendar')
    await page.goto('/calendars')
    await page.getByRole('link', { name: 'Rowing club veröffentlichen' }).click()
    await expect(page.getByRole('button', { name: 'Ersetzen …' })).toBeVisible()
    await expectGerman(page, 'publishing')
    await open('/editions', 'table')
    await open('/editions/new', '.step')
    await page.getByRole('button', { name: /^Woche, Uhr, Sprache/ }).click()
    await page.getByRole('button', { name: 'Farben einzeln wählen …' }).click()
    await expectGerman(page, 'the look of an edition')
    await page.goto('/editions')
    await page.getByRole('link', { name: 'Gestalten Next at school' }).click()
    await expect(page.getByRole('group', { name: 'Wie sie ausgeliefert wird' })).toBeVisible()
    for (const way of await page.getByRole('group', { name: 'Wie sie ausgeliefert wird' }).getByRole('button').all()) {
      await way.click()
      await expectGerman(page, 'a way to deliver')
    }
    await page.goto('/editions')
    await page.getByRole('link', { name: 'Lesen Everything, for the staff' }).click()
    await expect(page.getByRole('button', { name: /Eigene Adresse anlegen|Ersetzen …/ })).toBeVisible()
    await expectGerman(page, 'reading')
  })
})
