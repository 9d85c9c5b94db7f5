// A change of the year plan that touches 400 editions: how long until all of them are out, and what the desk waits meanwhile.
import { ask, at, head, judge, pause, row, signedIn } from './load.mjs'

const node = process.env.VALTRO_BENCH_URL
const editions = 400
/** An organisation composes at most 300: the others are those of calendars. */
const composed = 280
const call = await signedIn(node)
const calendars = (await call('GET', '/api/calendars')).filter((calendar) => calendar.mayPublish && calendar.disclosure.everyone !== 'nothing')

const shown = { members: 'complete', link: 'complete', everyone: 'complete' }
for (let number = calendars.length; number < editions - composed; number++) {
  const { id } = await call('POST', '/api/calendars', {
    name: `Calendar ${number}`, plate: `B${number}`, colour: 'harbour', zone: 'America/Halifax', description: '', disclosure: shown, readerships: [], requiresSignOff: false, version: null,
  })
  await call('POST', '/api/events', {
    calendarId: id, title: `Lesson ${number}`, allDay: false, date: process.env.VALTRO_BENCH_DAY, from: '10:00:00', to: '11:00:00', place: '', description: '',
    repeat: { pattern: 'weekly', interval: 1, weekdays: [(new Date(process.env.VALTRO_BENCH_DAY).getUTCDay() + 6) % 7 + 1], ends: 'never' },
  })
}
for (let number = 0; number < composed; number++)
  await call('POST', '/api/editions', {
    edition: {
      name: `Edition ${number}`,
      withBreaks: true,
      sources: calendars.filter((_, index) => (number >> index) & 1 || index === number % calendars.length).map(({ id }) => ({ calendarId: id })),
    },
    isOut: true,
  })

const states = async () => (await call('GET', '/api/editions')).filter(({ isInTheMaking }) => !isInTheMaking).map(({ freshness }) => freshness)
async function allOut() {
  const began = performance.now()
  for (;;) {
    const pending = (await states()).filter(({ state }) => state === 'pending').length
    if (pending === 0) return performance.now() - began
    if (performance.now() - began > 300_000) throw new Error(`${pending} are not out after five minutes`)
    // Whoever asks gets all findings of all editions too, which costs as much as rendering one.
    await pause(500)
  }
}

console.log(`${editions} editions are made; the last of them was out ${Math.round(await allOut())} ms later`)

const plan = (await call('GET', '/api/year-plans')).plans.find(({ first, last }) => first <= process.env.VALTRO_BENCH_DAY && last >= process.env.VALTRO_BENCH_DAY)
const took = []
const waits = async (path) => {
  const began = performance.now()
  await call('GET', path)
  took.push(performance.now() - began)
}
let isOver = false
const desk = async () => {
  for (let number = 0; !isOver; number++) {
    await waits(['/api/calendars', `/api/occurrences?from=${process.env.VALTRO_BENCH_DAY}&to=${process.env.VALTRO_BENCH_LATER}`, '/api/session'][number % 3])
    await pause(100)
  }
}
const calm = desk()
await pause(6_000)
isOver = true
await calm
const undisturbed = { took: took.splice(0).sort((one, other) => one - other), failed: 0 }
isOver = false
const busy = desk()
const { id, cycleDays: _, ...saved } = plan
const began = performance.now()
await call('PUT', `/api/year-plans/${id}`, { ...saved, breaks: [...saved.breaks, { name: 'Bench break', first: process.env.VALTRO_BENCH_DAY, last: process.env.VALTRO_BENCH_DAY }] })
const answered = performance.now() - began
await allOut()
const out = performance.now() - began
isOver = true
await busy
took.sort((one, other) => one - other)
head('the desk')
row('nothing is changed', undisturbed)
row(`while ${editions} editions go out`, { took, failed: 0 }, undisturbed)
console.log(`\nThe year plan is saved after ${Math.round(answered)} ms; all ${editions} editions are out after ${(out / 1_000).toFixed(1)} s`)
judge(out <= 20_000, 'all of them are out within 20 s')
judge(at(took, 0.99) <= 100, 'p99 of the desk meanwhile is at most 100 ms')
process.exit()
