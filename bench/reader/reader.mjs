// What a reading page costs its readers, measured in the real browser with the real build (see ./valtro bench reader).
// The processor is slowed down four times, as a cheap phone is; the network is the loopback.
import { gzipSync } from 'node:zlib'
import { chromium } from '../../tests/e2e/node_modules/playwright-core/index.mjs'

const base = process.env.VALTRO_E2E_URL
const BUDGET = { scripts: 90_000, paint: 1_000, shift: 0.001 }
const RUNS = 5

const pages = [
  ['month of three calendars', '/c/pinewick/juniors-for-families', { width: 1280, height: 800 }],
  ['the same on a phone', '/c/pinewick/juniors-for-families', { width: 390, height: 844 }],
  ['week', '/c/pinewick/juniors-for-families?view=week', { width: 1280, height: 800 }],
  ['list in a sidebar', '/c/pinewick/next-at-school/embed', { width: 300, height: 640 }],
  ['cards with a picture', '/c/pinewick/great-days-with-pictures', { width: 1280, height: 800 }],
]

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking'] })

const ahead = Date.parse(await (await fetch(`${base}/clock`)).text()) - Date.now()

/** One visit with an empty cache. */
async function visit(path, viewport, shown = '[data-entry]:visible') {
  const context = await browser.newContext({ viewport, locale: 'en-GB', timezoneId: 'America/Halifax' })
  const page = await context.newPage()
  const session = await context.newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  const responses = []
  page.on('response', (response) => responses.push(response))
  // The browser lives at the server's time, as its readers do.
  await page.addInitScript((ahead) => {
    const Machine = Date
    globalThis.Date = class extends Machine {
      constructor(...said) {
        if (said.length > 0) super(...said)
        else super(Machine.now() + ahead)
      }
      static now() {
        return Machine.now() + ahead
      }
    }
  }, ahead)
  await page.addInitScript(() => {
    window.measured = { shift: 0, paint: 0 }
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (!entry.hadRecentInput) window.measured.shift += entry.value
    }).observe({ type: 'layout-shift', buffered: true })
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) window.measured.paint = entry.startTime
    }).observe({ type: 'largest-contentful-paint', buffered: true })
  })
  await page.goto(base + path, { waitUntil: 'load' })
  await page.locator(shown).first().waitFor()
  // The script has taken the page over, and what follows from that has been drawn.
  if (shown !== 'body') {
    await page.locator('html.is-alive').waitFor()
    await page.waitForTimeout(500)
  }
  const measured = await page.evaluate(() => ({ ...window.measured, first: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0 }))
  const scripts = await Promise.all(responses.filter((one) => one.request().resourceType() === 'script').map(async (one) => gzipSync(await one.body()).length))
  const result = {
    ...measured,
    scripts: scripts.reduce((sum, size) => sum + size, 0),
    asked: responses.filter((one) => ['xhr', 'fetch'].includes(one.request().resourceType())).length,
    foreign: responses.filter((one) => new URL(one.url()).origin !== base).length,
  }
  await context.close()
  return result
}

const middle = (values) => [...values].sort((one, other) => one - other)[Math.floor(values.length / 2)]

console.log(`| Reading page, ${RUNS} visits, processor slowed 4 times | first paint | largest paint (< ${BUDGET.paint} ms) | layout shift (0) | JavaScript, gzipped (< ${BUDGET.scripts / 1000} kB) | more data asked for (0) | from elsewhere (0) |`)
console.log('|---|---:|---:|---:|---:|---:|---:|')
// What the browser takes by itself on this machine: a text of one word. The difference is what our pages cost.
const floor = []
// The server has compiled its code, and the browser is up, when a reader comes; each visit starts with nothing.
for (const [, path, viewport] of pages) await visit(path, viewport)
for (let run = 0; run < RUNS; run++) floor.push((await visit('/healthz', { width: 390, height: 844 }, 'body')).first)
console.log(`| (one word, for comparison) | ${middle(floor).toFixed(0)} ms | | | | | |`)
let missed = 0
for (const [name, path, viewport] of pages) {
  const runs = []
  for (let run = 0; run < RUNS; run++) runs.push(await visit(path, viewport))
  const [first, paint, shift] = ['first', 'paint', 'shift'].map((key) => middle(runs.map((run) => run[key])))
  const { scripts, asked, foreign } = runs[0]
  const isMissed = paint >= BUDGET.paint || shift > BUDGET.shift || scripts > BUDGET.scripts || asked > 0 || foreign > 0
  missed += isMissed ? 1 : 0
  console.log(`| ${name} | ${first.toFixed(0)} ms | ${paint.toFixed(0)} ms | ${shift.toFixed(3)} | ${(scripts / 1000).toFixed(1)} kB | ${asked} | ${foreign} |${isMissed ? ' missed' : ''}`)
}
await browser.close()
process.exit(missed === 0 ? 0 : 1)
