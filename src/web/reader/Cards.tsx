import type { Day } from '../shared/days'
import { lastDay } from '../shared/slips'
import type { Entry } from './edition'
import { EntryDetails } from './EntryDetails'
import { EntryItem, EntryPlates, EntryState } from './EntryItem'
import { EntryTitle } from './EntryTitle'
import { Picture } from './Picture'
import { sourcesOf, spotOf, usePage } from './page'
import { Said } from './Said'

/** Entries as cards with their pictures; one without a picture has the hatch of its calendar instead. */
export function Cards({ entries, from, to, empty }: { entries: Entry[]; from: Day; to: Day; empty: string }) {
  const { edition, open, speech } = usePage()
  const shown = entries.filter((entry) => lastDay(entry) >= from && entry.start.slice(0, 10) < to)
  if (shown.length === 0)
    return (
      <p className="nothing">
        <Said>{empty}</Said>
      </p>
    )
  const opened = shown.find((entry) => spotOf(entry, 'card') === open)
  return (
    <>
      <ul className="cards">
        {shown.map((entry) => (
          <li key={entry.id}>
            <EntryItem entry={entry} where="card" className="card">
              {entry.picture ? (
                <Picture picture={entry.picture} sizes="(min-width: 480px) 280px, 100vw" isMute />
              ) : (
                <span className={`card-hatch band hue-${sourcesOf(entry, edition)[0]?.colour ?? 'slate'}`} aria-hidden="true" />
              )}
              <Said className="line-when">{speech.when(entry)}</Said>
              <span className="card-title">
                <EntryPlates entry={entry} /> <EntryTitle entry={entry} className="line-title" />
              </span>
              {entry.place && (
                <span className="line-place" dir="auto">
                  {entry.place}
                </span>
              )}
              {entry.category && <span className={`category hue-${entry.category.colour}`}>{entry.category.name}</span>}
              <EntryState entry={entry} />
            </EntryItem>
          </li>
        ))}
      </ul>
      {opened && <EntryDetails entry={opened} />}
    </>
  )
}
