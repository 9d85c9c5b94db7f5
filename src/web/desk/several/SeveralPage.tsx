import { useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import { planOn } from '../lastPlan'
import { newKey } from '../api'
import type { SeveralReading, TableRow } from '../types'
import { useUndo } from '../changes/Changes'
import { useLeaveGuard } from '../LeaveGuard'
import { useCalendars } from '../calendars/queries'
import { useWrite } from '../useWrite'
import { useSeveral } from './queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { t } from './words'

type Column = keyof TableRow

const columns: [Column, string][] = [
  ['date', t('date')],
  ['from', t('from')],
  ['to', t('to')],
  ['title', t('title')],
  ['place', t('where')],
  ['calendar', t('calendar')],
]
/** As many as one save takes; whatever is pasted beyond stays in the table for the next. */
export const MOST = 500
const empty: TableRow = { date: '', from: '', to: '', title: '', place: '', calendar: '' }

/** A table to type into or to paste from a spreadsheet. One press saves every line, or none. */
export function SeveralPage() {
  const editable = (useCalendars().data ?? []).filter((calendar) => calendar.mayEdit)
  const [rows, setRows] = useState<TableRow[]>(() => Array.from({ length: 6 }, () => empty))
  const [calendarId, setCalendarId] = useState<string | null>(null)
  const usual = calendarId ?? editable[0]?.id ?? null
  const reading = useSeveral(useDeferredValue(rows.slice(0, MOST)), usual)
  const read = reading.data?.rows ?? []
  const filled = rows.slice(0, MOST).filter((row) => !isEmpty(row)).length
  const later = rows.slice(MOST).filter((row) => !isEmpty(row)).length
  const wrong = read.filter((row) => Object.keys(row.errors).length > 0).length
  const acts = useSaving(filled > 0)

  const set = (index: number, field: Column, value: string) =>
    setRows((all) => grown(all.map((row, at) => (at === index ? { ...row, [field]: value } : row))))
  const paste = (event: React.ClipboardEvent, index: number, column: number) => {
    const cells = readCells(event.clipboardData.getData('text/plain'))
    if (cells.length === 1 && cells[0]?.length === 1) return
    event.preventDefault()
    setRows((all) => grown(pasted(all, cells, index, column)))
  }
  const save = () =>
    acts.save({ rows: rows.slice(0, MOST), calendarId: usual }, later > 0 ? () => setRows(grown(rows.slice(MOST))) : null)

  return (
    <main className="page several">
      <p className="soft">{t.rich('planSeveralAtOnce', {}, <Link to={planOn(null)} />)}</p>
      <h1>{t('severalEventsAtOnce')}</h1>
      <p>
        {t('typeOrCopyLinesFrom')}{' '}
        <select
          className="form-select inline-select"
          aria-label={t('calendarForLinesThatName')}
          value={usual ?? ''}
          onChange={(event) => setCalendarId(event.target.value)}
        >
          {editable.map((calendar) => (
            <option key={calendar.id} value={calendar.id}>
              {calendar.plate} {calendar.name}
            </option>
          ))}
        </select>
      </p>
      {(acts.problem ?? reading.error) && (
        <p className="notice" role="alert">
          {(acts.problem ?? reading.error)?.message}
        </p>
      )}
      <table className="several-table">
        <thead>
          <tr>
            <th scope="col">
              <span className="visually-hidden">{t('line')}</span>
            </th>
            {columns.map(([field, name]) => (
              <th key={field} scope="col" className={`column-${field}`}>
                {name}
              </th>
            ))}
            <th scope="col">{t('readAs')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <tr key={index}>
              <th scope="row">{index + 1}</th>
              {columns.map(([field, name], column) => (
                <td key={field}>
                  <input
                    aria-label={t('nameLineIndex', { name, index: index + 1 })}
                    value={row[field] ?? ''}
                    aria-invalid={read[index]?.errors[field] !== undefined}
                    onChange={(event) => set(index, field, event.target.value)}
                    onPaste={(event) => paste(event, index, column)}
                  />
                </td>
              ))}
              <td>
                {!isEmpty(row) &&
                  (index < MOST ? <ReadAs row={read[index]} /> : <span className="soft">{t('forTheNextSave')}</span>)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {filled > 0 && (reading.data?.whoSees.length ?? 0) > 0 && (
        <p className="several-readers">
          {t('whoWillSeeThem')}{' '}
          {reading.data?.whoSees.map((one) => (
            <span key={one}>{one}</span>
          ))}
        </p>
      )}
      <p className="event-acts">
        <button type="button" className="btn btn-spruce" disabled={filled === 0 || wrong > 0 || acts.isSaving} onClick={save}>
          {acts.isSaving ? t('saving') : t('saveEvents', { count: filled })}
        </button>
        {later > 0 && <span className="soft"> {t('oneSaveTakesLines', { most: MOST, later })} </span>}
        {wrong > 0 && <span className="refusal">{t('linesAreNotRightYet', { count: wrong })}</span>}
      </p>
      {acts.guard}
    </main>
  )
}

function ReadAs({ row }: { row: SeveralReading['rows'][number] | undefined }) {
  if (!row) return null
  const errors = Object.values(row.errors)
  return errors.length > 0 ? <span className="refusal">{errors.join(' ')}</span> : <span className="read-well">{row.words}</span>
}

function useSaving(isDirty: boolean) {
  const { problem, isBusy: isSaving, post } = usePost()
  const [once, setOnce] = useState(newKey)
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()
  const { guard, leaveTo } = useLeaveGuard(isDirty, t('theTableIsNotSaved'))
  const save = (request: { rows: TableRow[]; calendarId: string | null }, goOn: (() => void) | null) =>
    post(async () => {
      const done = await write('POST', '/events/several', request, { once })
      toast(t('eventsAreSaved', { count: done.events }), () => undo(done.actId))
      if (!goOn) return leaveTo('/plan')
      goOn()
      setOnce(newKey())
    })
  return { problem, isSaving, save, guard }
}

function isEmpty(row: TableRow): boolean {
  return columns.every(([field]) => (row[field] ?? '').trim() === '')
}

/** There is always a line to go on in. */
function grown(rows: TableRow[]): TableRow[] {
  const last = rows[rows.length - 1]
  return last && !isEmpty(last) ? [...rows, empty] : rows
}

/** Cells of a spreadsheet: tabs between columns, line ends between rows. */
export function readCells(text: string): string[][] {
  return text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t').map((cell) => cell.trim().replace(/^"(.*)"$/, '$1')))
}

export function pasted(rows: TableRow[], cells: string[][], index: number, column: number): TableRow[] {
  const next = [...rows]
  cells.forEach((line, down) => {
    const row = { ...(next[index + down] ?? empty) }
    line.forEach((cell, across) => {
      const field = columns[column + across]?.[0]
      if (field) row[field] = cell
    })
    next[index + down] = row
  })
  return next
}
