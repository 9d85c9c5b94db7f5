import type { Calendar } from './api'
import { useOrganisation } from './queries'
import { sayReason, saySince } from './work/failures'

/** Whether changes have gone out, as a shape and in words. */
export function DeliveryLine({ delivery }: { delivery: Calendar['delivery'] }) {
  const organisation = useOrganisation()
  const words = {
    closed: 'nothing goes out',
    pending: 'going out …',
    upToDate: delivery.changedAt ? `out ${sayAgo(delivery.changedAt)}` : 'out',
    failing: delivery.failure
      ? `Going out failed since ${saySince(delivery.failure.since, organisation)}: ${sayReason(delivery.failure.reason)}`
      : 'going out failed',
  }
  return (
    <span className="delivery">
      <i className={`delivery-mark delivery-${delivery.state}`} aria-hidden="true" />
      {words[delivery.state]}
    </span>
  )
}

/** "just now", "4 minutes ago", "2 days ago". */
export function sayAgo(instant: string, now = Date.now()): string {
  const minutes = Math.floor((now - Date.parse(instant)) / 60_000)
  if (minutes < 1) return 'just now'
  const format = new Intl.RelativeTimeFormat('en', { numeric: 'always' })
  if (minutes < 60) return format.format(-minutes, 'minute')
  if (minutes < 48 * 60) return format.format(-Math.floor(minutes / 60), 'hour')
  return format.format(-Math.floor(minutes / 1440), 'day')
}
