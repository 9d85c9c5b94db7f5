// The warm feed while the database is stopped ("away"), while a hot table is locked and while no connection is to be had ("storm"),
// each against the same load undisturbed, just before.
import { execFileSync, spawn } from 'node:child_process'
import { at, head, judge, pause, read, row } from './load.mjs'

const node = process.env.VALTRO_BENCH_URL
const seconds = 20
const sql = (text) => execFileSync(process.env.VALTRO_PSQL, ['-qAtc', text], { stdio: ['ignore', 'pipe', 'inherit'] })
const control = (act) => execFileSync('bash', [process.env.VALTRO_TEST_CLUSTER_CONTROL, act], { stdio: 'ignore' })

const disturbances = {
  away: [['the database is stopped', () => control('stop'), () => control('start')]],
  storm: [
    [
      'the tables of editions and bytes are locked',
      () => spawn(process.env.VALTRO_PSQL, ['-qc', `begin; lock table edition, artefact, event in access exclusive mode; select pg_sleep(${seconds}); commit`], { stdio: 'ignore' }),
      () => pause(1_000),
    ],
    [
      'the database takes no more connections (53300)',
      () => sql('alter role server connection limit 0; select count(pg_terminate_backend(pid)) from pg_stat_activity where usename = \'server\''),
      () => sql('alter role server connection limit -1'),
    ],
  ],
}[process.argv[2]]

await read([node], 8)
head(`the warm feed, ${process.argv[2]}`)
for (const [name, begin, end] of disturbances) {
  const calm = await read([node], seconds)
  row('undisturbed', calm)
  begin()
  await pause(500)
  const disturbed = await read([node], seconds - 1)
  await end()
  row(name, disturbed, calm)
  judge(disturbed.failed === 0 && at(disturbed.took, 0.99) <= 2 * at(calm.took, 0.99), 'every reader gets their copy, and p99 is at most twice that undisturbed')
  await pause(5_000)
}
process.exit()
