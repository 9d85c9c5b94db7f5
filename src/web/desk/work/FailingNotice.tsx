import { Link, useLocation } from 'react-router'
import { useOrganisation } from '../session/queries'
import { useFailing } from './queries'
import { saySince } from './failures'
import { t } from './words'

/** Says on every screen of an administrator that something has not gone out. */
export function FailingNotice() {
  const failing = useFailing(true).data ?? []
  const organisation = useOrganisation()
  const { pathname } = useLocation()
  const first = failing[0]
  if (!first || pathname === '/work') return null
  return (
    <p className="notice failing-notice" role="status">
      {t.rich('notGoneOutSince', { count: failing.length, since: saySince(first.since, organisation) }, <Link to="/work" />)}
    </p>
  )
}
