import { describe, expect, test } from 'vitest'
import { readDay, readTime } from '../../src/web/shared/typed'

describe('a time as people type it', () => {
  test.each([
    ['9', '09:00'],
    ['9:30', '09:30'],
    ['930', '09:30'],
    ['9.30pm', '21:30'],
    ['21:30', '21:30'],
    ['12am', '00:00'],
    ['12 p.m.', '12:00'],
    ['14h30', '14:30'],
    [' 2pm ', '14:00'],
  ])('%s is %s', (typed, time) => expect(readTime(typed)).toBe(time))

  test.each(['', '25', '9:60', '13pm', '0am', 'noon', '9:3', '123456'])('“%s” is none', (typed) =>
    expect(readTime(typed)).toBeNull(),
  )
})

describe('a day as people type it', () => {
  const read = (typed: string, locale = 'en-GB') => readDay(typed, locale, '2026-11-23')

  test.each([
    ['2026-11-24', '2026-11-24'],
    ['24 Nov', '2026-11-24'],
    ['24 November 2026', '2026-11-24'],
    ['Tue 24 Nov 2026', '2026-11-24'],
    ['Nov 24', '2026-11-24'],
    ['24/11', '2026-11-24'],
    ['24.11.26', '2026-11-24'],
    ['8 Jan', '2027-01-08'],
    ['29 Feb 2028', '2028-02-29'],
  ])('%s is %s', (typed, day) => expect(read(typed)).toBe(day))

  test.each(['', 'soon', '31 Feb', '24', '2026-13-01', '29 Feb 2027'])('“%s” is none', (typed) => {
    expect(read(typed)).toBeNull()
  })

  test('the order of day and month is the locale’s', () => {
    expect(read('3/4/2027', 'en-GB')).toBe('2027-04-03')
    expect(read('3/4/2027', 'en-US')).toBe('2027-03-04')
  })

  test('months are named in the locale’s language', () => expect(read('8 mai 2027', 'nb-NO')).toBe('2027-05-08'))

  test('March is not May', () => {
    expect(read('8 Mar 2027')).toBe('2027-03-08')
    expect(read('8 May 2027')).toBe('2027-05-08')
    expect(read('8 Jun 2027')).toBe('2027-06-08')
    expect(read('8 July 2027')).toBe('2027-07-08')
  })
})
