import { sayDay } from '../../shared/days'
import { sayAgo } from '../Delivery'
import { useOrganisation } from '../session/queries'
import type { ChangedLine } from '../types'
import { sayChange, time } from './changes'
import { t } from './words'

/** What readers got with the last change, and in the fortnight before; the latest first. */
export function LastChange({ changes }: { changes: ChangedLine[] }) {
  const at = changes[0]?.at
  if (!at) return null
  const last = changes.filter((one) => one.at === at)
  const before = changes.slice(last.length)
  return (
    <div className="proof-changes">
      <details open>
        <summary>
          {t('lastChange', { count: last.length })} <span className="soft">{sayAgo(at)}</span>
        </summary>
        <Changes of={last} />
      </details>
      {before.length > 0 && (
        <details>
          <summary>{t('changesBefore', { count: before.length })}</summary>
          <Changes of={before} />
        </details>
      )}
    </div>
  )
}

function Changes({ of }: { of: ChangedLine[] }) {
  const { locale } = useOrganisation()
  return (
    <ul>
      {of.map((one) => (
        <li key={`${one.eventId} ${one.recurrenceId} ${one.change}`}>
          <span className={one.change === 'removed' || one.change === 'cancelled' ? 'is-gone' : ''}>
            <b>{one.title}</b>, {sayDay(one.start.slice(0, 10), locale, { weekday: 'short', day: 'numeric', month: 'short' })}
            {!one.allDay && ` ${time(one.start)}`}
          </span>
          {': '}
          <em>{sayChange(one, one, locale)}</em>
          {one.more > 0 && ` ${t('andLaterDates', { count: one.more })}`}
        </li>
      ))}
    </ul>
  )
}
