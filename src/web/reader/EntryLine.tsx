import type { Day } from '../shared/days'
import type { Entry, Piece } from './edition'
import { EntryDetails } from './EntryDetails'
import { EntryItem, EntryPlates, EntryState } from './EntryItem'
import { severalInList } from './groups'
import { sourcesOf, spotOf, usePage } from './page'
import { Said } from './Said'

/** A line of a list, as the edition's line pattern writes it, with its details below when they are open. */
export function EntryLine({ entry, day, where }: { entry: Entry; day: Day; where: string }) {
  const { edition, open, speech, readersZone } = usePage()
  const own = readersZone && speech.ownTime(entry, readersZone)
  const pieces: Partial<Record<Piece, React.ReactNode>> = {
    time: (
      <span className="line-when">
        <Said>{speech.span(entry, day, severalInList(entry, edition))}</Said>
        {own && <span className="own-time"> {speech.fill('yourTime', { when: own })}</span>}
      </span>
    ),
    date: <Said className="line-when">{speech.day(day)}</Said>,
    plate: (
      <span className="line-plates">
        <EntryPlates entry={entry} />
      </span>
    ),
    calendar: (
      <span className="line-calendar">
        {sourcesOf(entry, edition)
          .map((source) => source.name)
          .join(', ')}
      </span>
    ),
    title: (
      <span className="line-title" dir="auto">
        {entry.title}
      </span>
    ),
    people: plain(
      entry.people
        .filter(({ part }) => part === 'leads')
        .map(({ name }) => name)
        .join(', '),
    ),
    category: entry.category ? <span className={`category hue-${entry.category.colour}`}>{entry.category.name}</span> : null,
  }
  return (
    <li>
      <EntryItem entry={entry} where={where} className="line">
        {edition.look.line.map((part, index) => (
          // The pattern is fixed, so its places are names enough.
          <span key={index} className="piece">
            {part.piece ? (part.piece in pieces ? pieces[part.piece] : plain(entry[part.piece as keyof Entry])) : part.text}
          </span>
        ))}
        <EntryState entry={entry} />
      </EntryItem>
      {open === spotOf(entry, where) && <EntryDetails entry={entry} />}
    </li>
  )
}

/** Any other piece is a text of the entry under its own name. */
function plain(text: unknown) {
  return typeof text === 'string' && text !== '' ? (
    <span className="line-place" dir="auto">
      {text}
    </span>
  ) : null
}
