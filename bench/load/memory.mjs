// How much the server holds when each of 10,000 editions was fetched, as a feed and as a page.
import { readFileSync } from 'node:fs'

const [base, pid] = [process.env.VALTRO_BENCH_URL, process.env.VALTRO_BENCH_PID]
const wanted = 600
const megabytes = (name) => Math.round(Number(new RegExp(`${name}:\\s+(\\d+)`).exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1024)
const addresses = Array.from({ length: 250 }, (_, school) => Array.from({ length: 40 }, (_, calendar) => `${base}/c/other-${school + 1}/calendar-${calendar + 1}`)).flat()

const before = megabytes('VmRSS')
const began = performance.now()
let next = 0
await Promise.all(
  Array.from({ length: 6 }, async () => {
    while (next < addresses.length) {
      const at = addresses[next++]
      for (const form of ['.ics', '']) {
        let answer = await fetch(at + form)
        // A busy machine says so; a program comes again.
        for (let tries = 0; answer.status === 503 && tries < 20; tries++) {
          await new Promise((resolve) => setTimeout(resolve, 1_000))
          answer = await fetch(at + form)
        }
        if (!answer.ok) throw new Error(`${at}${form} answered ${answer.status}`)
        await answer.arrayBuffer()
      }
      if (next % 1_000 === 0) console.log(`${next} editions: ${megabytes('VmRSS')} MB, ${Math.round((performance.now() - began) / 1000)} s`)
    }
  }),
)
const most = megabytes('VmHWM')
console.log(`\nMemory: ${before} MB before, ${megabytes('VmRSS')} MB with ${addresses.length} editions as feed and page, ${most} MB at most (at most ${wanted} wanted)`)
process.exit(most <= wanted ? 0 : 1)
