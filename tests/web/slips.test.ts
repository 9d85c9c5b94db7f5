// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { saySize } from '../../src/web/desk/event/FilesField'
import { sayTime, sayTimeShort, sayWhen } from '../../src/web/desk/times'
import { firstDay, lastDay, touches, type Timed } from '../../src/web/shared/slips'

const timed = (start: string, end: string) => ({ start: `${start}:00-04:00`, end: `${end}:00-04:00`, allDay: false })
const days = (start: string, end: string) => ({ start: `${start}T00:00:00-04:00`, end: `${end}T00:00:00-04:00`, allDay: true })

const lab = timed('2026-11-24T14:00', '2026-11-24T15:30')
const night = timed('2026-11-28T22:00', '2026-11-29T06:00')
const untilMidnight = timed('2026-11-28T20:00', '2026-11-29T00:00')
const deadline = timed('2026-11-25T16:00', '2026-11-25T16:00')
const drill = days('2026-11-26', '2026-11-27')
const regatta = days('2026-11-07', '2026-11-10')

test('an event touches the days it lies on, and not the one that begins when it ends', () => {
  expect([firstDay(night), lastDay(night)]).toEqual(['2026-11-28', '2026-11-29'])
  expect(lastDay(untilMidnight)).toBe('2026-11-28')
  expect(lastDay(drill)).toBe('2026-11-26')
  expect(lastDay(regatta)).toBe('2026-11-09')
  expect(lastDay(deadline)).toBe('2026-11-25')
  expect(['2026-11-27', '2026-11-28', '2026-11-29', '2026-11-30'].map((day) => touches(night, day))).toEqual([
    false,
    true,
    true,
    false,
  ])
})

test('a slip says when it is, and on later days where it has got to', () => {
  expect(sayTime(lab)).toBe('14:00–15:30')
  expect(sayTime(deadline)).toBe('16:00')
  expect(sayTime(night)).toBe('from 22:00')
  expect(sayTime(night, '2026-11-29')).toBe('until 06:00')
  expect(sayTime(untilMidnight)).toBe('20:00–00:00')
  expect(sayTime(drill)).toBe('all day')
  expect(['2026-11-07', '2026-11-08', '2026-11-09'].map((day) => sayTime(regatta, day))).toEqual([
    'day 1 of 3',
    'day 2 of 3',
    'day 3 of 3',
  ])
})

test('a day in the middle of a timed stretch is all of that day', () => {
  const camp = timed('2026-11-27T09:00', '2026-11-29T16:00')
  expect(sayTime(camp, '2026-11-28')).toBe('all day')
  expect(sayTime(camp, '2026-11-29')).toBe('until 16:00')
})

test('on one line there is room for the start alone', () => {
  expect(sayTimeShort(lab, '2026-11-24')).toBe('14:00')
  expect(sayTimeShort(night, '2026-11-29')).toBe('on')
  expect(sayTimeShort(drill, '2026-11-26')).toBe('all day')
})

test('in details the whole span stands in words', () => {
  // Whether a comma stands behind the weekday is the locale data's affair.
  const when = (slip: Timed) => sayWhen(slip, 'en-GB').replaceAll('day, ', 'day ')
  expect(when(lab)).toBe('Tuesday 24 November 2026, 14:00 to 15:30')
  expect(when(night)).toBe('Saturday 28 November 2026, 22:00 to Sunday 29 November 2026, 06:00')
  expect(when(deadline)).toBe('Wednesday 25 November 2026, 16:00')
  expect(when(drill)).toBe('Thursday 26 November 2026, all day')
  expect(when(regatta)).toBe('Saturday 7 November 2026 to Monday 9 November 2026')
})

test('sizes are said as people do', () => {
  expect([0, 1, 1_499, 48_000, 1_240_000, 10_000_000].map(saySize)).toEqual(['', '1 kB', '1 kB', '48 kB', '1.2 MB', '10.0 MB'])
})
