// @vitest-environment happy-dom
import { describe, expect, test } from 'vitest'
import { addDays, addMonths, daysBetween, saySpan, todayIn, weekOf, weeksOf } from '../../src/web/shared/days'
import { sayTime, sayWhen } from '../../src/web/desk/times'
import { firstDay, lastDay, touches } from '../../src/web/shared/slips'

describe('days', () => {
  test('are counted across clock changes, months and leap days', () => {
    expect(addDays('2026-10-31', 1)).toBe('2026-11-01')
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29')
    expect(daysBetween('2026-03-01', '2027-03-01')).toBe(365)
    expect(addMonths('2026-12', 1)).toBe('2027-01')
    expect(addMonths('2026-01', -1)).toBe('2025-12')
  })

  test('a week begins on the day that the organisation says', () => {
    expect(weekOf('2026-11-29', 1)).toBe('2026-11-23')
    expect(weekOf('2026-11-29', 7)).toBe('2026-11-29')
    expect(weekOf('2026-11-28', 6)).toBe('2026-11-28')
  })

  test('a month is made of the whole weeks that it touches', () => {
    const weeks = weeksOf('2026-11', 1)
    expect(weeks).toHaveLength(6)
    expect([weeks[0]?.[0], weeks[5]?.[6]]).toEqual(['2026-10-26', '2026-12-06'])
    expect(weeksOf('2027-02', 1)).toHaveLength(4)
  })

  test('today depends on the zone', () => {
    const moment = new Date('2026-11-24T02:00:00Z')
    expect(todayIn('America/Halifax', moment)).toBe('2026-11-23')
    expect(todayIn('Europe/Oslo', moment)).toBe('2026-11-24')
  })

  test('a span is said without repeating itself', () => {
    expect(saySpan('2026-11-23', '2026-11-29', 'en-GB')).toBe('23 – 29 November 2026')
    expect(saySpan('2026-11-30', '2026-12-06', 'en-GB')).toBe('30 November – 6 December 2026')
    expect(saySpan('2026-12-28', '2027-01-03', 'en-GB')).toBe('28 December 2026 – 3 January 2027')
  })
})

describe('slips', () => {
  const lesson = { start: '2026-11-24T14:00:00-04:00', end: '2026-11-24T15:30:00-04:00', allDay: false }
  const regatta = { start: '2026-11-27', end: '2026-11-30', allDay: true }
  const night = { start: '2026-11-24T22:00:00-04:00', end: '2026-11-25T00:00:00-04:00', allDay: false }
  const watch = { start: '2026-11-24T22:00:00-04:00', end: '2026-11-26T06:00:00-04:00', allDay: false }

  test('an all-day event ends inclusively on screen', () => {
    expect([firstDay(regatta), lastDay(regatta)]).toEqual(['2026-11-27', '2026-11-29'])
    expect(touches(regatta, '2026-11-30')).toBe(false)
    // Whether a comma follows the weekday depends on the browser's data.
    expect(sayWhen(regatta, 'en-GB').replaceAll(',', '')).toBe('Friday 27 November 2026 to Sunday 29 November 2026')
  })

  test('what ends at midnight does not touch the next day', () => expect(lastDay(night)).toBe('2026-11-24'))

  test('times say where an event has got to', () => {
    expect(sayTime(lesson)).toBe('14:00–15:30')
    expect(sayTime({ ...lesson, end: lesson.start })).toBe('14:00')
    expect(sayTime(regatta, '2026-11-28')).toBe('day 2 of 3')
    expect([sayTime(watch), sayTime(watch, '2026-11-25'), sayTime(watch, '2026-11-26')]).toEqual([
      'from 22:00',
      'all day',
      'until 06:00',
    ])
  })
})
