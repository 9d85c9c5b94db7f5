// The warm feed against Kestrel alone with the same bytes and headers: whole, and that it is still right. Turn by turn, so that what else
// the machine does meets both.
import { execFileSync } from 'node:child_process'

const [ours, bare] = [process.env.VALTRO_BENCH_URL, process.env.VALTRO_BENCH_BARE]
const rounds = 15
const seconds = 2
const wanted = 0.85
const path = '/c/pinewick/port-watch.ics'
const tag = (await fetch(ours + path)).headers.get('etag')

const perSecond = (base, header) => {
  const said = execFileSync('wrk', ['-t1', '-c16', `-d${seconds}s`, ...(header ? ['-H', header] : []), base + path], { encoding: 'utf8' })
  if (/Non-2xx|Socket errors/.test(said) && !header) throw new Error(said)
  return Number(/Requests\/sec:\s+([\d.]+)/.exec(said)[1])
}
const middle = (numbers) => numbers.sort((one, other) => one - other)[Math.floor(numbers.length / 2)]

let missed = 0
console.log('\n| The warm feed | Valtro, a second | Kestrel alone | ratio | wanted |\n|---|---:|---:|---:|---:|')
for (const [name, header] of [
  ['whole', null],
  ['still right (304)', `If-None-Match: ${tag}`],
]) {
  perSecond(ours, header), perSecond(bare, header)
  const turns = Array.from({ length: rounds }, () => [perSecond(ours, header), perSecond(bare, header)])
  const ratio = middle(turns.map(([mine, theirs]) => mine / theirs))
  missed += ratio < wanted ? 1 : 0
  console.log(`| ${name} | ${middle(turns.map(([mine]) => mine)).toFixed(0)} | ${middle(turns.map(([, theirs]) => theirs)).toFixed(0)} | ${ratio.toFixed(2)} | ${wanted} |`)
}
process.exit(missed === 0 ? 0 : 1)
