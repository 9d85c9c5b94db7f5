// One change a second on one node until its bytes are at every form of the edition on the other, with 200 reads a second beside it on both.
import { ask, at, head, judge, pause, read, row, signedIn } from './load.mjs'

const nodes = process.env.VALTRO_BENCH_URL.split(' ')
const changes = 60
const page = '/c/pinewick/port-watch'
const month = process.env.VALTRO_BENCH_DAY.slice(0, 7)
const forms = {
  feed: '.ics',
  page: '',
  embed: '/embed',
  'month as data': `.json?month=${month}`,
  jcal: '.jcal',
  table: '.csv',
  json: '/v1.json',
  snapshot: '/snapshot.ics',
  'busy times': '.ifb',
}

// A minute of its own in the night for each change: busy times say no titles, and are merged.
const offset = new Intl.DateTimeFormat('en', { timeZone: 'America/Halifax', timeZoneName: 'longOffset' }).formatToParts(new Date(`${process.env.VALTRO_BENCH_DAY}T12:00:00Z`)).find(({ type }) => type === 'timeZoneName').value.slice(3)
const clock = (minutes) => `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}:00`
const inUtc = (minutes) => new Date(`${process.env.VALTRO_BENCH_DAY}T${clock(minutes)}${offset}`).toISOString().replace(/[-:]|\.000/g, '')

const call = await signedIn(nodes[0])
const calendar = (await call('GET', '/api/calendars')).find(({ plate }) => plate === 'PW')

async function change(title, number) {
  const began = performance.now()
  const minutes = number * 4
  await call('POST', '/api/events', { calendarId: calendar.id, title, allDay: false, date: process.env.VALTRO_BENCH_DAY, from: clock(minutes), to: clock(minutes + 1), place: 'Loft', description: '' })
  const answered = performance.now() - began
  const arrived = await Promise.all(
    Object.values(forms).map(async (form) => {
      // The page is asked for the day, since it opens with the month of now.
      const address = `${nodes.at(-1)}${page}${form}${form === '' || form === '/embed' ? `?date=${process.env.VALTRO_BENCH_DAY}` : ''}`
      for (;;) {
        const { text } = await ask(address)
        if (text.includes(form === '.ifb' ? inUtc(minutes) : title)) return performance.now() - began
        if (performance.now() - began > 30_000) throw new Error(`${title} is not at ${address} after 30 s`)
        await pause(10)
      }
    }),
  )
  return { answered, arrived }
}

await change('The first of all', 0)
head('the warm feed on two nodes')
const calm = await read(nodes, 15)
row('nothing is changed', calm)

const answered = []
const arrived = Object.keys(forms).map(() => [])
let isOver = false
const reading = (async () => {
  const all = { took: [], failed: 0 }
  while (!isOver) {
    const { took, failed } = await read(nodes, 2)
    all.took.push(...took)
    all.failed += failed
  }
  all.took.sort((one, other) => one - other)
  return all
})()
const began = performance.now()
const pending = []
for (let number = 1; number <= changes; number++) {
  const due = began + number * 1_000
  if (due > performance.now()) await pause(due - performance.now())
  pending.push(
    change(`Bench change ${number} of ${changes}`, number).then((took) => {
      answered.push(took.answered)
      took.arrived.forEach((one, form) => arrived[form].push(one))
    }),
  )
}
await Promise.all(pending)
isOver = true
row(`${changes} changes meanwhile`, await reading, calm)
const sorted = (numbers) => ({ took: numbers.sort((one, other) => one - other), failed: 0 })
head('one change, a second after the other')
row('until it is answered', sorted(answered))
Object.keys(forms).forEach((form, index) => row(`until its bytes are at the other node’s ${form}`, sorted(arrived[index])))
judge(Math.max(...arrived.map((one) => at(one, 0.99))) <= 500, 'p99 from a change to the bytes at every form is at most 500 ms')
process.exit()
