// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { brought, mayHaveHead, pasted, readCells } from '../../src/web/desk/several/cells'
import { hoursOf, layoutDay, timeAt } from '../../src/web/shared/timeGrid'

const day = { start: Date.parse('2026-11-24T00:00:00-04:00'), end: Date.parse('2026-11-25T00:00:00-04:00') }
const at = (from: string, to: string) => ({
  start: Date.parse(`2026-11-24T${from}-04:00`),
  end: Date.parse(`2026-11-24T${to}-04:00`),
})
const least = 30 / 1440

test('what overlaps stands side by side, and the next has the whole width again', () => {
  const placed = layoutDay(
    day,
    [
      { item: 'a', stretch: at('09:00', '12:00') },
      { item: 'b', stretch: at('10:00', '11:00') },
      { item: 'c', stretch: at('11:00', '13:00') },
      { item: 'd', stretch: at('13:00', '14:00') },
    ],
    least,
  )
  const of = Object.fromEntries(placed.map((one) => [one.item, [one.column, one.columns]]))
  expect(of).toEqual({ a: [0, 2], b: [1, 2], c: [1, 2], d: [0, 1] })
})

test('what has no length can still be hit, also at the end of the day', () => {
  const [placed] = layoutDay(day, [{ item: 'a', stretch: at('23:55', '23:55') }], least)
  expect(placed?.height).toBeCloseTo(least)
  expect((placed?.top ?? 0) + (placed?.height ?? 0)).toBeCloseTo(1)
})

test('what goes over midnight is cut to the day', () => {
  const stretch = { start: day.start - 3_600_000, end: day.start + 3_600_000 }
  expect(layoutDay(day, [{ item: 'a', stretch }], least)[0]).toMatchObject({ top: 0, height: 1 / 24 })
})

const autumn = ['2026-11-01T00:00:00-03:00', '2026-11-02T00:00:00-04:00', '2026-11-01T01:00:00-04:00'] as const
const spring = ['2027-03-14T00:00:00-04:00', '2027-03-15T00:00:00-03:00', '2027-03-14T03:00:00-03:00'] as const

test('a day of 25 hours has one o’clock twice, one of 23 has no two o’clock', () => {
  const autumnHours = hoursOf(...autumn).map((hour) => hour.label)
  expect(autumnHours).toHaveLength(25)
  expect(autumnHours.slice(0, 4)).toEqual(['00:00', '01:00', '01:00', '02:00'])
  expect(
    hoursOf(...spring)
      .map((hour) => hour.label)
      .slice(0, 4),
  ).toEqual(['00:00', '01:00', '03:00', '04:00'])
})

test('the time under the pointer is a quarter of an hour on that day’s clock', () => {
  expect(timeAt(14.3 / 24, '2026-11-24T00:00:00-04:00', '2026-11-25T00:00:00-04:00', null)).toBe('14:15')
  expect(timeAt(2 / 25, ...autumn)).toBe('01:00')
  expect(timeAt(2 / 23, ...spring)).toBe('03:00')
  expect(timeAt(1, '2026-11-24T00:00:00-04:00', '2026-11-25T00:00:00-04:00', null)).toBe('23:45')
})

test('cells of a spreadsheet are read and pasted from the cell on', () => {
  expect(readCells('3 Dec\t9\r\n"4 Dec"\t10\r\n')).toEqual([
    ['3 Dec', '9'],
    ['4 Dec', '10'],
  ])
  const empty = { date: '', from: '', to: '', title: '', place: '', calendar: '' }
  const rows = pasted(
    [empty],
    [
      ['9', '10', 'Knots'],
      ['11', '12', 'Lines', 'Loft', 'PW', 'too far'],
    ],
    0,
    1,
  )
  expect(rows).toEqual([
    { ...empty, from: '9', to: '10', title: 'Knots' },
    { ...empty, from: '11', to: '12', title: 'Lines', place: 'Loft', calendar: 'PW' },
  ])
})

test('a first line without numbers may name the columns, and what is brought loses no line that is there', () => {
  expect(
    mayHaveHead([
      ['Date', 'What'],
      ['3 Dec', 'Knots'],
    ]),
  ).toBe(true)
  expect(
    mayHaveHead([
      ['3 Dec', 'Knots'],
      ['4 Dec', 'Lines'],
    ]),
  ).toBe(false)
  const empty = { date: '', from: '', to: '', title: '', place: '', calendar: '' }
  const typed = { ...empty, title: 'Typed' }
  expect(brought([empty, typed], [{ ...empty, title: 'Brought' }], 0).map(({ title }) => title)).toEqual(['Brought', 'Typed', ''])
})
