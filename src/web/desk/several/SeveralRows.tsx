import { memo, useState } from 'react'
import type { SeveralReading } from '../types'
import { isEmpty, type Column, type Line } from './cells'
import { t } from './words'

export type Reading = SeveralReading['rows'][number]

/** So many lines stand on one page: each has a field for every column. */
const ON_PAGE = 200

interface SeveralRowsProps {
  rows: Line[]
  columns: Column[]
  readings: (Reading | undefined)[]
  /** As many as one save takes. */
  most: number
  isMade: (row: Line, index: number) => boolean
  onChange: (index: number, change: Partial<Line>) => void
  onPaste: (event: React.ClipboardEvent, index: number, column: number) => void
}

export function SeveralRows({ rows, columns, readings, most, isMade, onChange, onPaste }: SeveralRowsProps) {
  const [page, setPage] = useState(0)
  const pages = Math.ceil(rows.length / ON_PAGE)
  const first = Math.min(page, pages - 1) * ON_PAGE
  return (
    <>
      {pages > 1 && (
        <Pages first={first} count={rows.length} readings={readings} go={(line) => setPage(Math.floor(line / ON_PAGE))} />
      )}
      <div className="several-scroll">
        <table className="several-table">
          <thead>
            <tr>
              <th scope="col">
                <span className="visually-hidden">{t('line')}</span>
              </th>
              {columns.map((column) => (
                <th key={column} scope="col" className={`column-${column}`}>
                  {t(`column_${column}`)}
                </th>
              ))}
              <th scope="col">{t('readAs')}</th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(first, first + ON_PAGE).map((row, place) => (
              <OneRow
                key={first + place}
                row={row}
                index={first + place}
                columns={columns}
                reading={readings[first + place]}
                isLater={first + place >= most}
                isMade={isMade(row, first + place)}
                onChange={onChange}
                onPaste={onPaste}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}

interface PagesProps {
  first: number
  count: number
  readings: (Reading | undefined)[]
  go: (line: number) => void
}

function Pages({ first, count, readings, go }: PagesProps) {
  const wrong = readings.findIndex(
    (one, index) => one && Object.keys(one.errors).length > 0 && (index < first || index >= first + ON_PAGE),
  )
  const last = Math.floor((count - 1) / ON_PAGE) * ON_PAGE
  return (
    <p className="several-pages">
      {t('linesOf', { first: first + 1, last: Math.min(first + ON_PAGE, count), count })}{' '}
      <span className="joined" role="group" aria-label={t('pages')}>
        <button type="button" disabled={first === 0} onClick={() => go(0)}>
          {t('linesFirst')}
        </button>
        <button type="button" disabled={first === 0} onClick={() => go(first - ON_PAGE)}>
          ‹ {t('linesBefore')}
        </button>
        <button type="button" disabled={first === last} onClick={() => go(first + ON_PAGE)}>
          {t('linesAfter')} ›
        </button>
        <button type="button" disabled={first === last} onClick={() => go(last)}>
          {t('linesLast')}
        </button>
      </span>{' '}
      {wrong >= 0 && (
        <button type="button" className="as-link" onClick={() => go(wrong)}>
          {t('toALineNotRight', { line: wrong + 1 })}
        </button>
      )}
    </p>
  )
}

interface OneRowProps extends Pick<SeveralRowsProps, 'columns' | 'onChange' | 'onPaste'> {
  row: Line
  index: number
  reading: Reading | undefined
  isLater: boolean
  isMade: boolean
}

/** Drawn anew only when the line itself is another: a table of many lines is typed into as fast as one of few. */
const OneRow = memo(
  function OneRow({ row, index, columns, reading, isLater, isMade, onChange, onPaste }: OneRowProps) {
    return (
      <tr className={isEmpty(row) || isMade || isLater ? undefined : 'is-left'}>
        <th scope="row">
          {index + 1}
          {!isEmpty(row) && !isLater && (
            <input
              type="checkbox"
              aria-label={t('makeLine', { index: index + 1 })}
              checked={isMade}
              onChange={(event) => onChange(index, { isWanted: event.target.checked })}
            />
          )}
        </th>
        {columns.map((column, place) => (
          <td key={column} data-label={t(`column_${column}`)}>
            <input
              aria-label={t('nameLineIndex', { name: t(`column_${column}`), index: index + 1 })}
              value={row[column] ?? ''}
              aria-invalid={isMade && reading?.errors[column] !== undefined}
              onChange={(event) => onChange(index, { [column]: event.target.value })}
              onPaste={(event) => onPaste(event, index, place)}
            />
          </td>
        ))}
        <td>{!isEmpty(row) && (isLater ? <span className="soft">{t('forTheNextSave')}</span> : <ReadAs row={reading} />)}</td>
      </tr>
    )
  },
  (before, after) =>
    before.row === after.row &&
    before.reading === after.reading &&
    before.isMade === after.isMade &&
    before.isLater === after.isLater &&
    before.columns.length === after.columns.length,
)

function ReadAs({ row }: { row: Reading | undefined }) {
  if (!row) return null
  const errors = Object.values(row.errors)
  if (errors.length > 0) return <span className="refusal">{errors.join(' ')}</span>
  return (
    <span className="read-well">
      {row.words}
      {row.isThere && <em> {t('isThereAlready')}</em>}
    </span>
  )
}
