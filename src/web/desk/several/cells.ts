import type { TableRow } from '../types'

export type Column = Exclude<keyof TableRow, 'isEmpty' | 'id'>

/** In sight at first, and as they are pasted where no line names them. */
export const usual: Column[] = ['date', 'from', 'to', 'title', 'place', 'calendar']
/** In sight once they are wanted, or something stands there. */
export const further: Column[] = ['lastDay', 'repeat', 'description', 'category', 'tags', 'links']

/** A line of the table. */
export interface Line extends TableRow {
  /** Whether it is to be made, where somebody said so. */
  isWanted?: boolean
}

export const empty: Line = { date: '', from: '', to: '', title: '', place: '', calendar: '' }

export const isEmpty = (row: TableRow) => [...usual, ...further].every((column) => (row[column] ?? '').trim() === '')

/** There is always a line to go on in. */
export function grown(rows: Line[]): Line[] {
  const last = rows[rows.length - 1]
  return last && !isEmpty(last) ? [...rows, empty] : rows
}

/** What is sent of a line. */
export function rowOf(line: Line): TableRow {
  const row = { ...line }
  delete row.isWanted
  return row
}

/** Cells of a spreadsheet: tabs between columns, line ends between rows. */
export function readCells(text: string): string[][] {
  return text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t').map((cell) => cell.trim().replace(/^"(.*)"$/, '$1')))
}

/** A first line without any number may name the columns: whether it does, the server knows. */
export const mayHaveHead = (cells: string[][]) => cells.length > 1 && !(cells[0] ?? []).some((cell) => /\d/.test(cell))

/** The cells from one on, to the right and down. */
export function pasted(rows: Line[], cells: string[][], index: number, column: number, columns: Column[] = usual): Line[] {
  const next = [...rows]
  cells.forEach((line, down) => {
    const row = { ...(next[index + down] ?? empty) }
    line.forEach((cell, across) => {
      const field = columns[column + across]
      if (field) row[field] = cell
    })
    next[index + down] = row
  })
  return next
}

/** Whole lines from a sheet, from a line on; what stands there already is not lost but for empty lines. */
export function brought(rows: Line[], lines: TableRow[], index: number): Line[] {
  const before = rows.slice(0, index)
  const after = rows.slice(index).filter((row) => !isEmpty(row))
  return grown([...before, ...lines.map((line) => ({ ...empty, ...line })), ...after])
}
