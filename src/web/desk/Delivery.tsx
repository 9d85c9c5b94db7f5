import type { Calendar } from './types'
import { language } from './language'
import { useOrganisation } from './session/queries'
import { sayReason, saySince } from './work/failures'
import { t } from './words'

type Delivery = Calendar['delivery']

/** Whether changes have gone out, as a shape and in words. */
export function DeliveryLine({ delivery }: { delivery: Delivery }) {
  const words = {
    closed: t('nothingGoesOut'),
    pending: t('goingOut'),
    upToDate: delivery.changedAt ? t('outAgo', { ago: sayAgo(delivery.changedAt) }) : t('out'),
    failing: t('goingOutFailed'),
  }
  return (
    <span className="delivery">
      <i className={`delivery-mark delivery-${delivery.state}`} aria-hidden="true" />
      {delivery.failure ? <Failed failure={delivery.failure} /> : words[delivery.state]}
    </span>
  )
}

function Failed({ failure }: { failure: NonNullable<Delivery['failure']> }) {
  const organisation = useOrganisation()
  return <>{t('goingOutFailedSince', { since: saySince(failure.since, organisation), reason: sayReason(failure.reason) })}</>
}

/** "just now", "4 minutes ago", "2 days ago". */
export function sayAgo(instant: string, now = Date.now()): string {
  const minutes = Math.floor((now - Date.parse(instant)) / 60_000)
  if (minutes < 1) return t('justNow')
  const format = new Intl.RelativeTimeFormat(language, { numeric: 'always' })
  if (minutes < 60) return format.format(-minutes, 'minute')
  if (minutes < 48 * 60) return format.format(-Math.floor(minutes / 60), 'hour')
  return format.format(-Math.floor(minutes / 1440), 'day')
}
