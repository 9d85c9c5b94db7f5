import { afterEach, expect, test, vi } from 'vitest'
import { setTold, unlessTold } from '../../src/web/desk/told'

afterEach(() => vi.useRealTimers())

const fetchedAt = (dataUpdatedAt: number) => ({ state: { dataUpdatedAt } }) as Parameters<ReturnType<typeof unlessTold>>[0]

test('what was fetched before news come is asked for once more, and by the clock again when they stop', () => {
  vi.useFakeTimers({ now: 100_000 })
  const interval = unlessTold(15_000)
  expect(interval(fetchedAt(99_000))).toBe(15_000)
  setTold(true)
  expect(interval(fetchedAt(99_000))).toBe(15_000)
  expect(interval(fetchedAt(115_000))).toBe(false)
  vi.setSystemTime(200_000)
  setTold(true)
  expect(interval(fetchedAt(115_000))).toBe(false)
  setTold(false)
  expect(interval(fetchedAt(115_000))).toBe(15_000)
})
