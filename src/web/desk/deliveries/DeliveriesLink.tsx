import { Link } from 'react-router'
import { useEditions } from '../editions/queries'
import type { EditionLine } from '../types'
import { useReach } from './queries'
import { ReachSign } from './ReachSign'
import { t } from './words'

/** The way to who has which version of an edition, with whether those who usually fetch it have the newest. */
export function DeliveriesLink({ edition: { id, name } }: { edition: EditionLine }) {
  const { data } = useReach()
  const reach = data?.editions.find((one) => one.id === id)
  return (
    <Link to={`/editions/${id}/deliveries`}>
      <span className="visually-hidden">{t('whoHasName', { name })}: </span>
      {reach && reach.state !== 'nobody' ? <ReachSign reach={reach} /> : data ? t('nobody') : '…'}
    </Link>
  )
}

/** The same of a calendar's own edition. */
export function DeliveriesOfCalendar({ id }: { id: string }) {
  const edition = useEditions().data?.find((one) => one.calendarId === id)
  return edition?.mayEdit ? <DeliveriesLink edition={edition} /> : null
}
