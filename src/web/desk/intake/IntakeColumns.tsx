import type { IntakeAnswers, IntakeFound, TableColumn } from '../types'
import { t } from './words'

const kinds: TableColumn[] = [
  'date',
  'from',
  'to',
  'title',
  'place',
  'calendar',
  'lastDay',
  'due',
  'repeat',
  'description',
  'category',
  'tags',
  'links',
  'id',
]

interface IntakeColumnsProps {
  found: IntakeFound
  answer: (change: Partial<IntakeAnswers>) => void
}

/** The first lines of a sheet, and as what each of its columns is taken. */
export function IntakeColumns({ found, answer }: IntakeColumnsProps) {
  const columns = found.heads.map((_, index) => (found.columns[index] as TableColumn | null | undefined) ?? null)
  const put = (index: number, column: TableColumn | null) =>
    answer({
      columns: columns.map((one, at) => (at === index ? column : one === column ? null : one)) as TableColumn[],
      hasHead: found.hasHead,
    })
  return (
    <details
      className="intake-columns"
      open={!columns.includes('title') || !(columns.includes('date') || columns.includes('due'))}
    >
      <summary>
        {t('columnsAre')}{' '}
        {columns.flatMap((column, index) => (column ? [`${found.heads[index]} → ${t(`column_${column}`)}`] : [])).join(' · ')}
      </summary>
      <label className="tick">
        <input
          type="checkbox"
          checked={found.hasHead}
          onChange={(event) => answer({ hasHead: event.target.checked, columns: [] })}
        />{' '}
        {t('firstLineNames')}
      </label>
      <div className="intake-sample" tabIndex={0} role="region" aria-label={t('firstLines')}>
        <table className="plain-table">
          <thead>
            <tr>
              {found.heads.map((head, index) => (
                <th key={index} scope="col">
                  {head}
                  <select
                    className="form-select"
                    aria-label={t('columnIs', { name: head })}
                    value={columns[index] ?? ''}
                    onChange={(event) => put(index, (event.target.value || null) as TableColumn | null)}
                  >
                    <option value="">{t('ofNoUse')}</option>
                    {kinds.map((kind) => (
                      <option key={kind} value={kind}>
                        {t(`column_${kind}`)}
                      </option>
                    ))}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {found.sample.map((row, at) => (
              <tr key={at}>
                {found.heads.map((_, index) => (
                  <td key={index}>{row[index] ?? ''}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  )
}
