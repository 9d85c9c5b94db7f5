import { Link } from 'react-router'
import { useUndo } from '../changes/Changes'
import { sayAgo } from '../Delivery'
import type { Lately } from '../types'
import { useLately } from './queries'
import { t } from './words'

/** What was done, whole acts at a time, and the way to take each back. */
export function LatelyPage() {
  const lately = useLately()
  return (
    <main className="page">
      <h1>{t('doneLately')}</h1>
      <p className="soft">{t.rich('whatWasDoneIn30Days', {}, <Link to="/bin" />)}</p>
      {lately.error && (
        <p className="notice" role="alert">
          {lately.error.message}
        </p>
      )}
      {lately.data?.length === 0 && <p className="empty">{t('nothingWasDone')}</p>}
      {lately.data && lately.data.length > 0 && (
        <table className="plain-table as-cards">
          <thead>
            <tr>
              <th scope="col">{t('when')}</th>
              <th scope="col">{t('who')}</th>
              <th scope="col">{t('what')}</th>
              <th scope="col">
                <span className="visually-hidden">{t('takeBack')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {lately.data.map((one) => (
              <Line key={one.actId} act={one} />
            ))}
          </tbody>
        </table>
      )}
    </main>
  )
}

function Line({ act }: { act: Lately }) {
  const undo = useUndo()
  const more = act.events - act.titles.length
  return (
    <tr>
      <td data-label={t('when')}>{sayAgo(act.at)}</td>
      <td data-label={t('who')}>{act.by}</td>
      <td data-label={t('what')}>
        {t(`lately_${act.act}`, { count: act.events })} <b>{act.titles.join(', ')}</b>
        {more > 0 && <span className="soft"> {t('andMoreEvents', { count: more })}</span>}
      </td>
      <td>
        {act.mayUndo ? (
          <button type="button" className="btn btn-outline-ink" onClick={() => void undo(act.actId)}>
            {t('takeBack')}
          </button>
        ) : (
          <span className="soft">{t('changedSince')}</span>
        )}
      </td>
    </tr>
  )
}
