import { Link } from 'react-router'
import type { Failing } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { useOrganisation } from '../session/queries'
import { useFailing } from './queries'
import { useToast } from '../Toasts'
import { saySince, sayReason, sayWork } from './failures'
import { t } from './words'

/** What was to be done and does not succeed: since when, why, and when it is tried again. */
export function WorkPage() {
  const failing = useFailing(true)
  return (
    <main className="page">
      <h1>{t('whatHasNotGoneOut')}</h1>
      <p className="soft">{t('afterEveryChangeEditionsAre')}</p>
      {failing.error && (
        <p className="notice" role="alert">
          {failing.error.message}
        </p>
      )}
      {failing.data?.length === 0 && <p className="empty">{t('everythingHasGoneOut')}</p>}
      {failing.data && failing.data.length > 0 && (
        <table className="plain-table work-table">
          <thead>
            <tr>
              <th scope="col">{t('what')}</th>
              <th scope="col">{t('failedSince')}</th>
              <th scope="col">{t('why')}</th>
              <th scope="col">{t('nextTry')}</th>
              <th scope="col">
                <span className="visually-hidden">{t('tryAgain')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {failing.data.map((one) => (
              <Line key={`${one.kind} ${one.key}`} failing={one} />
            ))}
          </tbody>
        </table>
      )}
    </main>
  )
}

function Line({ failing }: { failing: Failing }) {
  const organisation = useOrganisation()
  const write = useWrite()
  const toast = useToast()
  const attempt = useAttempt()
  const tryAgain = () =>
    attempt(async () => {
      await write('POST', '/work/try-again', { kind: failing.kind, key: failing.key })
      toast(t('workTriedAgainNow', { work: sayWork(failing) }))
    })
  return (
    <tr>
      <td>
        {sayWork(failing)}
        {failing.editionId && (
          <>
            {': '}
            <Link to={`/editions/${failing.editionId}`}>{failing.subject || t('anEdition')}</Link>
          </>
        )}
      </td>
      <td>
        {saySince(failing.since, organisation)}
        <br />
        <span className="soft">{t('tries', { count: failing.tries })}</span>
      </td>
      <td>
        {sayReason(failing.reason)}
        <br />
        <code className="work-error">{failing.error}</code>
      </td>
      <td>{failing.nextTryAt ? saySince(failing.nextTryAt, organisation) : t('setAside')}</td>
      <td>
        <button
          type="button"
          className="btn btn-outline-ink"
          onClick={tryAgain}
          aria-label={t('tryAgainWorkSubject', { work: sayWork(failing), subject: failing.subject })}
        >
          {t('tryAgain')}
        </button>
      </td>
    </tr>
  )
}
