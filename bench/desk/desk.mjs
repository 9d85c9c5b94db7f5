// What the desk of a real school costs (see ./valtro bench desk): 10 organisations, 400 calendars, 200,000 events.
// Dates of 12 calendars over six weeks against the bare SQL of the same rows, in the same run; a screen of calendars; a week of all of them.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { ask, at, judge } from '../load/load.mjs'

const base = process.env.VALTRO_BENCH_URL
const built = process.env.VALTRO_BENCH_BUILT
const RUNS = 30
/** As many before that, until the server's code is translated as it stays. */
const WARM = 150

const jar = new Map()
async function call(path, options = {}) {
  const answer = await ask(base + path, { ...options, headers: { Accept: 'application/json', Cookie: [...jar].map((one) => one.join('=')).join('; '), ...options.headers } })
  for (const cookie of answer.headers['set-cookie'] ?? []) {
    const [name, value] = cookie.split(';')[0].split(/=(.*)/s)
    jar.set(name, value)
  }
  if (answer.status !== 200) throw new Error(`${path} answered ${answer.status}: ${answer.text.slice(0, 300)}`)
  return JSON.parse(answer.text)
}

const { antiforgeryToken } = await call('/api/session')
await call('/api/session', {
  method: 'POST',
  headers: { 'Content-Type': 'application/json', 'X-Valtro-Token': antiforgeryToken },
  body: JSON.stringify({ email: 'ada@pinewick.example', password: 'harbour-lantern' }),
})

/** How long the whole answer takes to arrive. */
async function measure(path) {
  const headers = { Accept: 'application/json', Cookie: [...jar].map((one) => one.join('=')).join('; ') }
  const took = []
  for (let run = 0; run < RUNS + WARM; run++) {
    const began = performance.now()
    const { status } = await ask(base + path, { headers })
    if (status !== 200) throw new Error(`${path} answered ${status}`)
    if (run >= WARM) took.push(performance.now() - began)
  }
  return { took: took.sort((one, other) => one - other), answer: await call(path) }
}

/** The rows alone, as psql fetches them. */
function bare(calendars, from, to) {
  const list = calendars.map((id) => `'${id}'`).join(', ')
  const rows = `select e.id, e.home_calendar_id, e.uid, e.state, e.content from event e where e.removed_at is null and e.id in (
    select id from event where home_calendar_id in (${list}) and removed_at is null and reach_to >= '${from}' and reach_from < '${to}'
    union all select event_id from placement where calendar_id in (${list}) and reach_to >= '${from}' and reach_from < '${to}');`
  const said = execFileSync(process.env.VALTRO_PSQL, ['-qAt'], { input: `\\timing on\n\\o /dev/null\nset valtro.organisation = 'all';\n${rows.repeat(RUNS + WARM)}`, maxBuffer: 1e9 }).toString()
  const took = [...said.matchAll(/(?:Time|Zeit): ([\d.,]+) ms/g)].map((one) => Number(one[1].replace(',', '.')))
  return took.slice(WARM + 1).sort((one, other) => one - other)
}

const all = (await call('/api/calendars')).filter((one) => /^Q\d+$/.test(one.plate)).map((one) => one.id)
const twelve = all.slice(0, 12)
const [from, to] = ['2026-11-09', '2026-12-21']
const dates = await measure(`/api/occurrences?from=${from}&to=${to}&${twelve.map((id) => `calendar=${id}`).join('&')}`)
const rows = bare(twelve, `${from} 04:00Z`, `${to} 04:00Z`)
const calendars = await measure('/api/calendars')
const week = await measure('/api/occurrences?from=2026-11-23&to=2026-11-30')

// A word of one event, one of some, one of every event, one with a typing error, and several.
const searches = []
for (const text of ['safety drill', 'lesson 44', 'lesson', 'lamps', 'ergomters', 'room 12 lesson'])
  searches.push({ text, ...(await measure(`/api/search?text=${encodeURIComponent(text)}`)) })

const say = (name, took, more = '') => console.log(`${name.padEnd(52)} p50 ${at(took, 0.5).toFixed(1).padStart(7)} ms   p95 ${at(took, 0.95).toFixed(1).padStart(7)} ms   ${more}`)
say('bare SQL: the rows of 12 calendars over 6 weeks', rows)
say('GET /api/occurrences: the same', dates.took, `${dates.answer.length} dates, ${(at(dates.took, 0.5) / at(rows, 0.5)).toFixed(1)} times the bare SQL`)
say('GET /api/calendars', calendars.took, `${calendars.answer.length} calendars`)
say('GET /api/occurrences: a week of all calendars', week.took, `${week.answer.length} dates`)
for (const { text, took, answer } of searches) say(`GET /api/search: “${text}”`, took, `${answer.coming.length} come, ${answer.over.length} are over`)
judge(searches.every(({ took }) => at(took, 0.5) <= 100), 'each search takes at most 100 ms')
judge(at(dates.took, 0.5) <= 5 * at(rows, 0.5), 'dates take at most 5 times the bare SQL of their rows')
judge(at(calendars.took, 0.5) <= 50 && at(week.took, 0.5) <= 50, 'the calendars and a week of all of them take at most 50 ms')

/** All scripts that the browser loads before the plan can be seen. */
const manifest = JSON.parse(readFileSync(`${built}/.vite/desk.json`, 'utf8'))
const loaded = new Set()
const load = (name) => {
  if (loaded.has(name)) return
  loaded.add(name)
  for (const needed of manifest[name].imports ?? []) load(needed)
  // The words of one language come with each part.
  for (const words of manifest[name].dynamicImports ?? []) if (words.includes('words/en/')) load(words)
}
load('desk/index.html')
load('desk/plan/PlanPage.tsx')
const sizes = [...loaded].map((name) => manifest[name].file).filter((file) => file.endsWith('.js')).map((file) => gzipSync(readFileSync(`${built}/${file}`), { level: 9 }).length)
const weight = sizes.reduce((sum, size) => sum + size, 0)
console.log(`the plan's first load: ${(weight / 1000).toFixed(1)} kB of gzipped JavaScript in ${sizes.length} files`)
judge(weight <= 160_000, 'the plan loads at most 160 kB')
process.exit()
