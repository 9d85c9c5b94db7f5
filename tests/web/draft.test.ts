// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { newDraft, requestOf } from '../../src/web/desk/event/draft'

const draft = newDraft('calendar', '2026-11-24')

test('a new event is once, on the weekday of its day', () => {
  expect(requestOf(draft).repeat).toBeNull()
  expect(draft.weekdays).toEqual([2])
})

test('only what the sentence says is sent', () => {
  const repeat = requestOf({ ...draft, pattern: 'weekly', ends: 'after', until: '2026-12-18', count: '6' }).repeat
  expect(repeat).toEqual({
    pattern: 'weekly',
    interval: 1,
    weekdays: [2],
    ends: 'after',
    until: undefined,
    count: 6,
    countsTaking: true,
  })
})

test('a number that is none is sent as one that the server refuses', () => {
  expect(requestOf({ ...draft, pattern: 'daily', interval: 'often' }).repeat?.interval).toBe(0)
})

test('an all-day event has no times', () => {
  const request = requestOf({ ...draft, allDay: true })
  expect([request.from, request.to]).toEqual([null, null])
})
