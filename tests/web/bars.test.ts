// @vitest-environment happy-dom
import { describe, expect, test } from 'vitest'
import { barsOf, linesOn } from '../../src/web/desk/plan/bars'
import { daysFrom } from '../../src/web/shared/days'
import { date } from './deskWorld'

/** Whole days, both included. */
const lasting = (title: string, first: string, last: string) => {
  const end = new Date(new Date(`${last}T00:00:00Z`).getTime() + 86_400_000).toISOString().slice(0, 10)
  return date(title, { start: first, end, allDay: true })
}
const week = daysFrom('2026-11-30', 7)
const said = (rows: ReturnType<typeof barsOf>['rows']) =>
  rows.map((row) => row.map(({ occurrence, from, to }) => `${occurrence.title} ${from}-${to}`))

describe('what lasts for several days', () => {
  test('is one bar across them, beside each other in as few rows as can be', () => {
    const { rows, rest } = barsOf(
      [
        lasting('Exams', '2026-11-30', '2026-12-02'),
        lasting('Voyage', '2026-12-02', '2026-12-03'),
        lasting('Regatta', '2026-12-04', '2026-12-06'),
        lasting('Open day', '2026-12-01', '2026-12-01'),
      ],
      week,
    )
    expect(said(rows)).toEqual([['Exams 0-2', 'Regatta 4-6'], ['Voyage 2-3']])
    expect(rest.map((one) => one.title)).toEqual(['Open day'])
  })

  test('says where it comes from before what is in sight, and goes on after it', () => {
    const { rows } = barsOf([lasting('Exchange', '2026-11-20', '2026-12-20')], week)
    expect(rows[0]?.[0]).toMatchObject({ from: 0, to: 6, day: '2026-11-30', comesFromBefore: true, goesOnAfter: true })
  })

  test('is an ordinary slip where no more than a day of it is in sight', () => {
    const { rows, rest } = barsOf(
      [
        lasting('Over', '2026-11-20', '2026-11-30'),
        lasting('Next', '2026-12-06', '2026-12-09'),
        lasting('Gone', '2026-11-01', '2026-11-29'),
      ],
      week,
    )
    expect(rows).toEqual([])
    expect(rest.map((one) => one.title)).toEqual(['Over', 'Next', 'Gone'])
  })

  test('a night lies across two days; what ends at midnight does not', () => {
    const night = date('Night watch', { start: '2026-12-01T22:00:00-04:00', end: '2026-12-02T02:00:00-04:00' })
    const evening = date('Evening', { start: '2026-12-01T22:00:00-04:00', end: '2026-12-02T00:00:00-04:00' })
    expect(said(barsOf([night, evening], week).rows)).toEqual([['Night watch 1-2']])
  })

  test('of weeks beside each other lies across those that it touches', () => {
    const weeks = ['2026-11-30', '2026-12-07', '2026-12-14']
    const { rows, rest } = barsOf(
      [lasting('Exams', '2026-12-01', '2026-12-04'), lasting('Voyage', '2026-12-05', '2026-12-08')],
      weeks,
      7,
    )
    expect([said(rows), rest.map((one) => one.title)]).toEqual([[['Voyage 0-1']], ['Exams']])
  })
})

describe('the lines of a day of a month', () => {
  const bar = barsOf([lasting('Exams', '2026-11-30', '2026-12-02')], week).rows[0]?.[0] ?? null
  const single = (count: number) => Array.from({ length: count }, (_, index) => date(`E${index}`))
  const titles = (lines: ReturnType<typeof linesOn>['lines']) =>
    lines.map((line) => (line === null ? '-' : 'from' in line ? `=${line.occurrence.title}` : line.title))

  test('the first stands beside the number, and bars below it', () => {
    const exams = bar!.occurrence
    expect(titles(linesOn([exams, ...single(2)], [bar], 4).lines)).toEqual(['E0', '=Exams', 'E1'])
    expect(titles(linesOn([exams], [bar], 4).lines)).toEqual(['-', '=Exams'])
  })

  test('a row without a bar on that day is filled', () => {
    expect(titles(linesOn([bar!.occurrence, ...single(2)], [null, bar], 4).lines)).toEqual(['E0', 'E1', '=Exams'])
  })

  test.each([1, 2, 3, 4, 5, 9])('of %i nothing is lost', (count) => {
    const { lines, left } = linesOn([bar!.occurrence, ...single(count)], [bar], 4)
    expect(lines.length + (left > 0 ? 1 : 0)).toBeLessThanOrEqual(4)
    expect(titles(lines).filter((title) => title.startsWith('E')).length + left).toBe(count)
  })
})
