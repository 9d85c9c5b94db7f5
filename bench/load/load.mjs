// What readers wait for a warm feed, and a save for its way to the feed, at a steady 200 reads a second.
// Requests leave by the clock, whether or not earlier ones came back: a slow answer is not hidden by a pause.
import { Agent, request } from 'node:http'

const feeds = ['/c/pinewick/port-watch.ics', '/c/pinewick/starboard-watch.ics', '/c/pinewick/juniors-for-families.ics', '/c/pinewick/whole-school.ics']
const agent = new Agent({ keepAlive: true, maxSockets: 256 })

export const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds))

export function ask(address, { method = 'GET', headers = {}, body } = {}) {
  return new Promise((resolve, reject) => {
    const asked = request(address, { agent, method, headers }, (answer) => {
      const parts = []
      answer.on('data', (part) => parts.push(part))
      answer.on('end', () => resolve({ status: answer.statusCode, headers: answer.headers, text: Buffer.concat(parts).toString() }))
      answer.on('error', reject)
    })
    asked.on('error', reject)
    asked.end(body)
  })
}

/** Reads at a steady rate from all nodes in turn. Gives milliseconds, sorted, and how many answers were none. */
export async function read(nodes, seconds, perSecond = 200) {
  const took = []
  const pending = []
  let failed = 0
  const began = performance.now()
  for (let number = 0; number < seconds * perSecond; number++) {
    const due = began + (number * 1000) / perSecond
    if (due > performance.now()) await pause(due - performance.now())
    const address = nodes[number % nodes.length] + feeds[number % feeds.length]
    pending.push(
      ask(address).then(
        ({ status }) => (status === 200 ? took.push(performance.now() - due) : failed++),
        () => failed++,
      ),
    )
  }
  await Promise.all(pending)
  return { took: took.sort((one, other) => one - other), failed }
}

export const at = (sorted, part) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? NaN

const number = (value) => value.toFixed(1).padStart(8)

export function row(name, { took, failed }, calm) {
  const ratio = calm ? ` ${(at(took, 0.99) / at(calm.took, 0.99)).toFixed(2).padStart(6)} ×` : ''
  console.log(`${name.padEnd(44)} ${String(took.length).padStart(6)} ${String(failed).padStart(6)} ${number(at(took, 0.5))} ${number(at(took, 0.95))} ${number(at(took, 0.99))}${ratio}`)
}

export function head(what) {
  console.log(`\n${what.padEnd(44)} ${'answers'.padStart(6)} ${'none'.padStart(6)} ${'p50 ms'.padStart(8)} ${'p95 ms'.padStart(8)} ${'p99 ms'.padStart(8)}   to the undisturbed`)
}

/** Says whether what was promised was kept, and ends the run accordingly. */
export function judge(kept, promise) {
  console.log(`${kept ? 'kept' : 'NOT KEPT'}: ${promise}`)
  if (!kept) process.exitCode = 1
}

/** Somebody at the desk of a node. */
export async function signedIn(node, email = 'ada@pinewick.example') {
  const cookies = new Map()
  let token
  const call = async (method, path, body) => {
    const answer = await ask(node + path, {
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
  token = (await call('GET', '/api/session')).antiforgeryToken
  token = (await call('POST', '/api/session', { email, password: 'harbour-lantern' })).antiforgeryToken
  return call
}
