import { useEffect, useRef, useState } from 'react'
import { placeOfZone } from '../shared/days'
import { OutwardLinks } from '../shared/OutwardLinks'
import type { Entry } from './edition'
import { EntryPlates, EntryState, focusSpot } from './EntryItem'
import { EntryTitle } from './EntryTitle'
import { Picture } from './Picture'
import { pageOfEntry, usePage } from './page'
import { share } from './share'

/** An entry in full, where it stands. Escape or Close takes the reader back to it. */
export function EntryDetails({ entry }: { entry: Entry }) {
  const { edition, addresses, speech, readersZone, open, onOpen } = usePage()
  const { words } = speech
  const box = useRef<HTMLElement>(null)
  useEffect(() => box.current?.focus({ preventScroll: false }), [entry.id, open])
  const close = () => {
    onOpen(null)
    if (open) focusSpot(open)
  }
  const own = readersZone && speech.ownTime(entry, readersZone)
  return (
    <section
      ref={box}
      className="details"
      tabIndex={-1}
      aria-label={entry.title}
      onKeyDown={(event) => event.key === 'Escape' && close()}
    >
      <div className="details-head">
        <EntryPlates entry={entry} always />
        <EntryTitle entry={entry} as="h3" />
        <button type="button" className="plain" onClick={close}>
          {words.close}
        </button>
      </div>
      <EntryState entry={entry} />
      <p>{speech.when(entry)}</p>
      {own && <p className="soft">{speech.fill('yourTime', { when: own })}</p>}
      {entry.own && (
        <p className="soft">
          {speech.fill('ownClock', { place: placeOfZone(entry.own.zone), when: speech.when({ ...entry.own, allDay: false }) })}
        </p>
      )}
      {entry.place && <p>{entry.place}</p>}
      {entry.category && <p className={`category hue-${entry.category.colour}`}>{entry.category.name}</p>}
      <OutwardLinks
        className="entry-links"
        links={[
          ...entry.links.map((link) => ({ address: link.url, label: speech.linkName(link) })),
          ...entry.files.map(({ address, name, said }) => ({
            address: `${addresses.base}/${address}`,
            label: name,
            about: said,
          })),
        ]}
      />
      {speech.people(entry).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {entry.contact && (
        <p>
          {words.contact}: {entry.contact}
        </p>
      )}
      {entry.description && <div className="rich" dangerouslySetInnerHTML={{ __html: entry.description }} />}
      {edition.isLive && <Ways entry={entry} />}
      {entry.picture && <Picture picture={entry.picture} className="details-picture" sizes="(min-width: 760px) 720px, 100vw" />}
    </section>
  )
}

/** Ways on: its own page, into the reader's own calendar, to somebody else. */
function Ways({ entry }: { entry: Entry }) {
  const { addresses, speech } = usePage()
  const { words } = speech
  const [said, setSaid] = useState('')
  const page = pageOfEntry(entry, addresses)
  if (!page) return null
  // The address of a date is that of its event, and the start that its rule gives it.
  const series = page.slice(0, page.lastIndexOf('/'))
  return (
    <p className="details-ways">
      <a href={page} target="_blank" rel="noopener">
        {words.ownPage}
      </a>
      <a href={`${page}.ics`}>{entry.recurs ? words.addThisDate : words.addToCalendar}</a>
      {entry.recurs && (
        <>
          <a href={`${series}.ics`}>{words.addAllDates}</a>
          <a href={`${series}.ics`.replace(/^https?:/, 'webcal:')}>{words.followSeries}</a>
        </>
      )}
      <button
        type="button"
        className="as-link"
        onClick={() =>
          void share(`${entry.title}, ${speech.when(entry)}`, page).then((how) =>
            setSaid(how === 'copied' ? words.copied : how === 'failed' ? page : ''),
          )
        }
      >
        {'share' in navigator ? words.share : words.copyLink}
      </button>
      <span role="status">{said}</span>
    </p>
  )
}
