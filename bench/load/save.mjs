// One save on one node until its bytes are at the feed of the other, with 200 reads a second beside it on both.
import { ask, at, head, judge, pause, read, row } from './load.mjs'

const nodes = process.env.VALTRO_BENCH_URL.split(' ')
const saves = 60
const cookies = new Map()

async function call(method, path, body, token) {
  const answer = await ask(nodes[0] + path, {
    method,
    headers: { 'content-type': 'application/json', cookie: [...cookies].map((pair) => pair.join('=')).join('; '), ...(token && { 'x-valtro-token': token }) },
    body: body && JSON.stringify(body),
  })
  for (const cookie of answer.headers['set-cookie'] ?? []) {
    const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie)
    cookies.set(name, value)
  }
  if (answer.status >= 400) throw new Error(`${method} ${path}: ${answer.status} ${answer.text}`)
  return answer.text && JSON.parse(answer.text)
}

const before = await call('GET', '/api/session')
const { antiforgeryToken } = await call('POST', '/api/session', { email: 'ada@pinewick.example', password: 'harbour-lantern' }, before.antiforgeryToken)
const calendar = (await call('GET', '/api/calendars')).find(({ plate }) => plate === 'PW')

async function save(title) {
  const began = performance.now()
  await call('POST', '/api/events', { calendarId: calendar.id, title, allDay: false, date: process.env.VALTRO_BENCH_DAY, from: '10:00:00', to: '11:00:00', place: 'Loft', description: '' }, antiforgeryToken)
  const answered = performance.now() - began
  for (;;) {
    const { text } = await ask(`${nodes.at(-1)}/c/pinewick/port-watch.ics`)
    if (text.includes(title)) return { answered, arrived: performance.now() - began }
    await pause(10)
  }
}

await read(nodes, 8)
await save('The first of all')
head('the warm feed on two nodes')
const calm = await read(nodes, 15)
row('nothing is saved', calm)

const answered = []
const arrived = []
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
for (let number = 1; number <= saves; number++) {
  const took = await save(`Bench save ${number} of ${saves}`)
  answered.push(took.answered)
  arrived.push(took.arrived)
  await pause(150)
}
isOver = true
row(`${saves} saves meanwhile`, await reading, calm)
answered.sort((one, other) => one - other)
arrived.sort((one, other) => one - other)
head('one save')
row('until it is answered', { took: answered, failed: 0 })
row('until its bytes are at the other node’s feed', { took: arrived, failed: 0 })
judge(at(arrived, 0.99) <= 1_000, 'p99 from a save to the bytes at the feed is at most 1 s')
process.exit()
