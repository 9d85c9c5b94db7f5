import type { Revision } from '../types'
import { fieldName } from '../event/fields'
import { t } from './words'

/** What two versions of an event say differently, line by line. */
export function Differences({ differences }: { differences: Revision['differences'] }) {
  if (differences.length === 0) return null
  return (
    <table className="differences">
      <tbody>
        {differences.map((difference, index) => (
          <tr key={index}>
            <th scope="row">{fieldName(difference.field)}</th>
            <td>{difference.was || '–'}</td>
            <td aria-label={t('becomes')}>→</td>
            <td>{difference.is || '–'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
