import { addDays, sayDay, type Day } from '../shared/days'
import { Plate } from '../shared/Plate'
import { firstDay, lastDay, sayTime } from '../shared/slips'
import type { Edition, Entry } from './edition'
import { EntryButton, EntryDetails, focusEntry } from './EntryDetails'

interface EntryListProps {
  entries: Entry[]
  /** Nothing that ended before this day is listed. */
  from: Day
  edition: Edition
  today: Day
  open: string | null
  onOpen: (id: string | null) => void
  /** What to say when there is nothing. */
  empty: string
}

/** Day by day, what is on. What lasts for days stands on its first day, or today while it goes on. */
export function EntryList({ entries, from, edition, today, open, onOpen, empty }: EntryListProps) {
  const days = new Map<Day, Entry[]>()
  for (const entry of entries) {
    if (lastDay(entry) < from) continue
    const day = firstDay(entry) < from ? from : firstDay(entry)
    days.set(day, [...(days.get(day) ?? []), entry])
  }
  if (days.size === 0) return <p className="nothing">{empty}</p>
  return (
    <ol className="days">
      {[...days].sort(byDay).map(([day, onDay]) => (
        <li key={day} className={day === today ? 'day is-today' : 'day'}>
          <h3 className="day-name">
            <b>
              {day === today
                ? 'Today'
                : day === addDays(today, 1)
                  ? 'Tomorrow'
                  : sayDay(day, edition.locale, { weekday: 'short' })}
            </b>{' '}
            <span>{sayDay(day, edition.locale, { day: 'numeric', month: 'short' })}</span>
          </h3>
          <ul>
            {onDay.map((entry) => (
              <li key={entry.id}>
                <EntryButton entry={entry} open={open} onOpen={onOpen} className="line">
                  <span className="line-when">
                    {sayTime(entry, day)} <Plate code={entry.plate} colour={entry.colour} size="small" />
                  </span>
                  <span className="line-title">{entry.title}</span>
                  {entry.place && <span className="line-place">{entry.place}</span>}
                  {entry.state === 'cancelled' && <span className="cancelled">cancelled</span>}
                </EntryButton>
                {open === entry.id && (
                  <EntryDetails entry={entry} edition={edition} onClose={() => (onOpen(null), focusEntry(entry))} />
                )}
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}

function byDay([one]: [Day, Entry[]], [other]: [Day, Entry[]]): number {
  return one < other ? -1 : 1
}
