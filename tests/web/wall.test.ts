import { describe, expect, test } from 'vitest'
import { wallOf, type WallDay, type WallEntry, type YearSheet } from '../../src/web/shared/wall'

const year: YearSheet = {
  from: '2026-08-01',
  to: '2027-08-01',
  terms: [
    {
      name: 'Autumn',
      first: '2026-09-09',
      last: '2026-12-18',
      // The second week is a break.
      weeks: ['2026-09-07', '2026-09-21', '2026-09-28'],
    },
  ],
  breaks: [
    { name: 'Storm week', first: '2026-09-14', last: '2026-09-18' },
    { name: 'Winter break', first: '2026-12-19', last: '2027-01-04' },
  ],
  often: [],
}

const entry = (title: string, first: string, last = first, time = ''): WallEntry => ({
  id: `${title} ${first}`,
  title,
  first,
  last,
  time,
  colour: 'kelp',
  plates: [],
  isCancelled: false,
  isDraft: false,
  isDue: false,
  isUncertain: false,
})

const wall = (entries: WallEntry[], lines = 3) => {
  const made = wallOf(year, entries, lines)
  return { ...made, on: (day: string) => made.months.flat().find((one) => one.day === day)! }
}
const said = (day: WallDay) =>
  day.lines.map((line) => ('entry' in line ? line.entry.title : 'term' in line ? `term ${line.term}` : `break ${line.closed}`))

describe('a year on one sheet', () => {
  test('has every day of twelve months once', () => {
    const { months } = wall([])
    expect(months.map((days) => days.length)).toEqual([31, 30, 31, 30, 31, 31, 28, 31, 30, 31, 30, 31])
    expect(new Set(months.flat().map(({ day }) => day)).size).toBe(365)
  })

  test('names terms and breaks where they begin, and a break again at the head of a month', () => {
    const { on } = wall([])
    expect(said(on('2026-09-09'))).toEqual(['term Autumn'])
    expect(said(on('2026-12-19'))).toEqual(['break Winter break'])
    expect(said(on('2027-01-01'))).toEqual(['break Winter break'])
    expect([on('2027-01-04').isClosed, on('2027-01-05').isClosed]).toEqual([true, false])
  })

  test('numbers the weeks of school: none in a break', () => {
    const { months } = wall([])
    expect(months.flat().flatMap(({ day, week }) => (week === null ? [] : [[day, week]]))).toEqual([
      ['2026-09-09', 1],
      ['2026-09-21', 2],
      ['2026-09-28', 3],
      ['2026-10-01', 3],
    ])
  })

  test('what lasts for days has one lane from its first day to its last, across the end of a month', () => {
    const { on, lanes } = wall([
      entry('Voyage', '2026-10-29', '2026-11-02'),
      entry('Exams', '2026-11-02', '2026-11-06'),
      entry('Regatta', '2026-11-07', '2026-11-08'),
    ])
    expect(on('2026-10-31').bands.map((one) => one?.title)).toEqual(['Voyage'])
    expect(on('2026-11-02').bands.map((one) => one?.title)).toEqual(['Voyage', 'Exams'])
    // The lane that is free again is taken again.
    expect(on('2026-11-05').bands.map((one) => one?.title)).toEqual([undefined, 'Exams'])
    expect(on('2026-11-07').bands.map((one) => one?.title)).toEqual(['Regatta'])
    expect(lanes.slice(2, 4)).toEqual([1, 2])
    expect([said(on('2026-10-29')), said(on('2026-10-30')), said(on('2026-11-01'))]).toEqual([['Voyage'], [], ['Voyage']])
  })

  test('what a day has no room for is counted there, and all of that day stands behind', () => {
    const full = ['A', 'B', 'C', 'D'].map((title, hour) => entry(title, '2026-11-10', '2026-11-10', `1${hour}:00`))
    const { on, full: behind } = wall(full)
    expect([said(on('2026-11-10')), on('2026-11-10').more]).toEqual([['A', 'B'], 2])
    expect(behind).toEqual([{ day: '2026-11-10', entries: full }])
    expect(wall(full.slice(0, 3)).full).toEqual([])
  })

  test.each([1, 2, 3])('nothing is lost with %i lines a day', (lines) => {
    const many = Array.from({ length: 300 }, (_, index) => {
      const first = new Date(Date.UTC(2026, 6, 20 + ((index * 7) % 380)))
      const last = new Date(first.getTime() + (index % 9) * 86_400_000)
      return entry(`E${index}`, first.toISOString().slice(0, 10), last.toISOString().slice(0, 10))
    })
    const { months, full } = wall(many, lines)
    const shown = new Set(
      months.flat().flatMap((day) => day.lines.flatMap((line) => ('entry' in line ? [line.entry.title] : []))),
    )
    for (const { entries } of full) for (const one of entries) shown.add(one.title)
    const inYear = many.filter((one) => one.first < year.to && one.last >= year.from)
    expect(inYear.filter((one) => !shown.has(one.title))).toEqual([])
    for (const day of months.flat()) expect(day.lines.length + (day.more > 0 ? 1 : 0)).toBeLessThanOrEqual(Math.max(lines, 2))
  })
})
