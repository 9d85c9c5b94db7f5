import { sayDay } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { sayAgo } from '../Delivery'
import { useOrganisation } from '../session/queries'
import type { ChangedLine } from '../types'
import { sayChange, time } from './changes'
import { t } from './words'

/** More of them are shown when they are asked for, and scrolled. */
const MOST_OPEN = 6

/** What readers got with the last change, and in the fortnight before; the latest first. */
export function LastChange({ changes }: { changes: ChangedLine[] }) {
  const at = changes[0]?.at
  if (!at) return null
  const last = changes.filter((one) => one.at === at)
  const before = changes.slice(last.length)
  return (
    <div className="proof-changes">
      <details open={last.length <= MOST_OPEN}>
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
    // So many are scrolled, also by keyboard.
    <ul tabIndex={of.length > MOST_OPEN ? 0 : undefined}>
      {of.map((one) => (
        <li key={`${one.eventId} ${one.recurrenceId} ${one.change}`}>
          <span className={one.change === 'removed' || one.change === 'cancelled' ? 'is-gone' : ''}>
            {one.sources.map((source) => (
              <Plate key={source.plate} code={source.plate} colour={source.colour} size="small" />
            ))}{' '}
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
