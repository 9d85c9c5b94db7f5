import { Link } from 'react-router'
import { useUndo } from '../changes/Changes'
import { sayAgo } from '../Delivery'
import type { IntakeListed } from '../types'
import { SourceList } from '../sources/SourceList'
import { BringEvents } from './BringEvents'
import { useIntakes } from './queries'
import { t } from './words'

/** Events from outside: files are brought here, and those that were. */
export function IntakePage() {
  const intakes = useIntakes()
  return (
    <main className="page intake">
      <h1>{t('intake')}</h1>
      <p className="soft">{t('whatStandsSomewhere')}</p>
      <BringEvents />
      <p>
        <Link to="/check">{t('checkAFile')}</Link>
      </p>
      {intakes.error && (
        <p className="notice" role="alert">
          {intakes.error.message}
        </p>
      )}
      {intakes.data && intakes.data.length > 0 && (
        <section aria-labelledby="brought">
          <h2 id="brought">{t('filesYouBrought')}</h2>
          <table className="plain-table as-cards">
            <thead>
              <tr>
                <th scope="col">{t('file')}</th>
                <th scope="col">{t('brought')}</th>
                <th scope="col">{t('whatBecame')}</th>
                <th scope="col">
                  <span className="visually-hidden">{t('takeBack')}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {intakes.data.map((one) => (
                <Brought key={one.id} intake={one} />
              ))}
            </tbody>
          </table>
        </section>
      )}
      <SourceList />
    </main>
  )
}

function Brought({ intake }: { intake: IntakeListed }) {
  const undo = useUndo()
  return (
    <tr>
      <td data-label={t('file')}>
        <Link to={`/intake/${intake.id}`}>{intake.name}</Link>
      </td>
      <td data-label={t('brought')}>{sayAgo(intake.madeAt)}</td>
      <td data-label={t('whatBecame')}>{t(`state_${intake.state}`, { count: intake.taken })}</td>
      <td>
        {intake.state === 'done' && intake.actId && (
          <button type="button" className="btn btn-outline-ink" onClick={() => void undo(intake.actId ?? '')}>
            {t('takeBack')}
          </button>
        )}
      </td>
    </tr>
  )
}
