import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'

/** Else a screen would show what was, since news of one's own changes are not listened to. */
test('every change goes the way that asks anew for what is on screen', () => {
  const reads = /preview|\/consequences|\/destinations|\/line'|\/check'|\/cells'|\/typed\/|\/next`|\/breaks'|\/look'/
  const beforeSigningIn = /'\/session|'\/password-resets|'\/invitations\/accept/
  const desk = new URL('../../src/web/desk/', import.meta.url).pathname
  const calls = readdirSync(desk, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file))
    .flatMap((file) => readFileSync(desk + file, 'utf8').match(/\bcall\(\s*(?!'GET'|method|\s)[^\n]*/g) ?? [])
  expect(calls.length).toBeGreaterThan(5)
  expect(calls.filter((one) => !reads.test(one) && !beforeSigningIn.test(one))).toEqual([])
})
