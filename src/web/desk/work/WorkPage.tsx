import { Link } from 'react-router'
import { call, type Failing } from '../api'
import { useFailing, useOrganisation, useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { saySince, sayReason, sayWork } from './failures'

/** What was to be done and does not succeed: since when, why, and when it is tried again. */
export function WorkPage() {
  const failing = useFailing(true)
  return (
    <main className="page">
      <h1>What has not gone out</h1>
      <p className="soft">
        After every change editions are rendered and mail is handed over, behind the screens. What does not succeed is tried
        again, later and later; after a while it is set aside until something changes, or somebody asks for it here.
      </p>
      {failing.error && (
        <p className="notice" role="alert">
          {failing.error.message}
        </p>
      )}
      {failing.data?.length === 0 && <p className="empty">Everything has gone out.</p>}
      {failing.data && failing.data.length > 0 && (
        <table className="plain-table work-table">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Failed since</th>
              <th scope="col">Why</th>
              <th scope="col">Next try</th>
              <th scope="col">
                <span className="visually-hidden">Try again</span>
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
  const refresh = useRefresh()
  const toast = useToast()
  const tryAgain = async () => {
    try {
      await call('POST', '/work/try-again', { kind: failing.kind, key: failing.key })
      toast(`${sayWork(failing)}: tried again now.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
    await refresh.everything()
  }
  return (
    <tr>
      <td>
        {sayWork(failing)}
        {failing.editionId && (
          <>
            {': '}
            <Link to={`/editions/${failing.editionId}`}>{failing.subject || 'an edition'}</Link>
          </>
        )}
      </td>
      <td>
        {saySince(failing.since, organisation)}
        <br />
        <span className="soft">
          {failing.tries} {failing.tries === 1 ? 'try' : 'tries'}
        </span>
      </td>
      <td>
        {sayReason(failing.reason)}
        <br />
        <code className="work-error">{failing.error}</code>
      </td>
      <td>{failing.nextTryAt ? saySince(failing.nextTryAt, organisation) : 'set aside'}</td>
      <td>
        <button
          type="button"
          className="btn btn-outline-ink"
          onClick={tryAgain}
          aria-label={`Try again: ${sayWork(failing)} ${failing.subject}`}
        >
          Try again
        </button>
      </td>
    </tr>
  )
}
