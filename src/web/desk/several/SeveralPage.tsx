import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { call } from '../api'
import { useCalendars } from '../calendars/queries'
import { useMakingMany } from '../changes/useMakingMany'
import { FileButton } from '../FileButton'
import { planOn } from '../lastPlan'
import type { TableBrought } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { bringTable } from './bringTable'
import {
  brought,
  empty,
  further,
  grown,
  isEmpty,
  mayHaveHead,
  pasted,
  readCells,
  rowOf,
  usual,
  type Column,
  type Line,
} from './cells'
import { useReadings, useWhoSees } from './queries'
import { SeveralRows, type Reading } from './SeveralRows'
import { t } from './words'

/** As many as one save takes; whatever is pasted beyond stays in the table for the next. */
export const MOST = 5000

/** A table to type into, to paste into from a spreadsheet, or to bring as a file. One press makes every line that is ticked, or none. */
export function SeveralPage() {
  const editable = (useCalendars().data ?? []).filter((calendar) => calendar.mayEdit)
  const [rows, setRows] = useState<Line[]>(() => Array.from({ length: 6 }, () => empty))
  const [wanted, setWanted] = useState<Column[]>([])
  const [calendarId, setCalendarId] = useState<string | null>(null)
  const usualCalendar = calendarId ?? editable[0]?.id ?? null
  const sent = useMemo(() => rows.slice(0, MOST).map(rowOf), [rows])
  const reading = useReadings(sent, usualCalendar)
  const isMade = (row: Line, index: number) =>
    index < MOST && !isEmpty(row) && (row.isWanted ?? reading.rows[index]?.isThere !== true)
  const made = rows.filter(isMade)
  const later = rows.slice(MOST).filter((row) => !isEmpty(row)).length
  const there = rows.filter((row, index) => !isEmpty(row) && reading.rows[index]?.isThere).length
  const wrong = rows.filter((row, index) => isMade(row, index) && isWrong(reading.rows[index])).length
  const ofAll = useWhoSees(reading.whoSees === null && !reading.isReading ? made.map(rowOf) : null, usualCalendar)
  const whoSees = reading.whoSees ?? ofAll
  const write = useWrite()
  const acts = useMakingMany(made.length > 0, t('theTableIsNotSaved'))
  const bring = useBringing(rows, setRows)
  const columns = [...usual, ...further.filter((one) => wanted.includes(one) || rows.some((row) => (row[one] ?? '') !== ''))]
  const paste = (event: React.ClipboardEvent, index: number, column: number) => {
    const text = event.clipboardData.getData('text/plain')
    const cells = readCells(text)
    if (cells.length === 1 && cells[0]?.length === 1) return
    event.preventDefault()
    const positional = () => setRows((all) => grown(pasted(all, cells, index, column, columns)))
    if (mayHaveHead(cells)) void bring.cells(text, index, positional)
    else positional()
  }
  const save = () => {
    const rest = rows.slice(MOST)
    void acts.make(
      (once) => write('POST', '/events/several', { rows: made.map(rowOf), calendarId: usualCalendar }, { once }),
      (count) => t('eventsAreSaved', { count }),
      later > 0 ? () => setRows(grown(rest)) : '/plan',
    )
  }
  return (
    <main className="page several">
      <p className="soft">{t.rich('planSeveralAtOnce', {}, <Link to={planOn(null)} />)}</p>
      <h1>{t('severalEventsAtOnce')}</h1>
      <p>
        {t('typeOrCopyLinesFrom')}{' '}
        <select
          className="form-select inline-select"
          aria-label={t('calendarForLinesThatName')}
          value={usualCalendar ?? ''}
          onChange={(event) => setCalendarId(event.target.value)}
        >
          {editable.map((calendar) => (
            <option key={calendar.id} value={calendar.id}>
              {calendar.plate} {calendar.name}
            </option>
          ))}
        </select>
      </p>
      <div className="several-tools">
        <FileButton label={t('bringASheet')} accept=".xlsx,.csv,.tsv,.txt" className="btn btn-outline-ink" onBring={bring.file} />
        {further.some((one) => !columns.includes(one)) && (
          <span role="group" aria-label={t('moreColumns')}>
            {t('moreColumns')}{' '}
            {further
              .filter((one) => !columns.includes(one))
              .map((one) => (
                <button key={one} type="button" className="as-link" onClick={() => setWanted([...wanted, one])}>
                  {t(`column_${one}`)}
                </button>
              ))}
          </span>
        )}
      </div>
      {bring.said !== '' && (
        <p className="remark" role="status">
          {bring.said}
        </p>
      )}
      {(acts.problem ?? reading.error) && (
        <p className="notice" role="alert">
          {(acts.problem ?? reading.error)?.message}
        </p>
      )}
      {sent.length > 250 && reading.isReading && (
        <progress
          aria-label={t('linesRead', { read: reading.read, count: sent.length })}
          value={reading.read}
          max={sent.length}
        />
      )}
      <SeveralRows
        rows={rows}
        columns={columns}
        readings={reading.rows}
        most={MOST}
        isMade={isMade}
        onChange={(index, change) => setRows((all) => grown(all.map((row, at) => (at === index ? { ...row, ...change } : row))))}
        onPaste={paste}
      />
      {made.length > 0 && whoSees.length > 0 && (
        <p className="several-readers">
          {t('whoWillSeeThem')}{' '}
          {whoSees.map((one) => (
            <span key={one}>{one}</span>
          ))}
        </p>
      )}
      {acts.isBusy && made.length > 250 && <progress aria-label={t('saving')} />}
      <p className="event-acts">
        <button type="button" className="btn btn-spruce" disabled={made.length === 0 || wrong > 0 || acts.isBusy} onClick={save}>
          {acts.isBusy ? t('saving') : t('saveEvents', { count: made.length })}
        </button>
        {there > 0 && <span className="soft"> {t('areThereAlready', { count: there })} </span>}
        {later > 0 && <span className="soft"> {t('oneSaveTakesLines', { most: MOST, later })} </span>}
        {wrong > 0 && <span className="refusal">{t('linesAreNotRightYet', { count: wrong })}</span>}
      </p>
      {acts.guard}
    </main>
  )
}

export const isWrong = (reading: Reading | undefined) => reading !== undefined && Object.keys(reading.errors).length > 0

/** Tables from elsewhere, after the lines that are there. What was understood of their columns is said. */
function useBringing(rows: Line[], setRows: (change: (rows: Line[]) => Line[]) => void) {
  const attempt = useAttempt()
  const [said, setSaid] = useState('')
  const put = ({ rows: lines, hasHead, unused }: TableBrought, index: number) => {
    setRows((all) => brought(all, lines, index))
    setSaid(
      [
        t('linesBrought', { count: lines.length }),
        hasHead ? t('columnsByTheirNames') : '',
        unused.length > 0 ? t('columnsUnused', { names: unused.join(', ') }) : '',
      ]
        .filter(Boolean)
        .join(' '),
    )
  }
  return {
    said,
    file: (file: File) => void attempt(async () => put(await bringTable(file), rows.filter((row) => !isEmpty(row)).length)),
    cells: (text: string, index: number, otherwise: () => void) =>
      attempt(async () => {
        const table = await call('POST', '/events/several/cells', { text })
        if (table.hasHead) put(table, index)
        else otherwise()
      }),
  }
}
