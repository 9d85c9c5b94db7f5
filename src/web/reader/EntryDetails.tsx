import { useEffect, useRef } from 'react'
import { placeOfZone } from '../shared/days'
import { OutwardLinks } from '../shared/OutwardLinks'
import { Plate } from '../shared/Plate'
import { sayWhen } from '../shared/slips'
import type { Edition, Entry } from './edition'

/** An entry in full, where it stands. Escape or Close takes the reader back to it. */
export function EntryDetails({ entry, edition, onClose }: { entry: Entry; edition: Edition; onClose: () => void }) {
  const box = useRef<HTMLElement>(null)
  useEffect(() => box.current?.focus({ preventScroll: false }), [entry.id])
  return (
    <section
      ref={box}
      className="details"
      tabIndex={-1}
      aria-label={entry.title}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <div className="details-head">
        <Plate code={entry.plate} colour={entry.colour} />
        <h3 className={entry.state === 'cancelled' ? 'struck' : undefined}>{entry.title}</h3>
        <button type="button" className="plain" onClick={onClose}>
          Close
        </button>
      </div>
      {entry.state === 'cancelled' && <p className="cancelled">Cancelled</p>}
      <p>{sayWhen(entry, edition.locale)}</p>
      {entry.own && (
        <p className="soft">
          {placeOfZone(edition.zone)} time. In {placeOfZone(entry.own.zone)}:{' '}
          {sayWhen({ ...entry.own, allDay: false }, edition.locale)}
        </p>
      )}
      {entry.place && <p>{entry.place}</p>}
      <OutwardLinks
        className="entry-links"
        links={[
          ...entry.links.map(({ url, label }) => ({ address: url, label })),
          ...entry.files.map(({ address, name }) => ({ address, label: name })),
        ]}
      />
      {entry.contact && <p>Contact: {entry.contact}</p>}
      {entry.description && <div className="rich" dangerouslySetInnerHTML={{ __html: entry.description }} />}
    </section>
  )
}

/** Opens and closes an entry's details, and brings the focus back to what was pressed. */
export function EntryButton(props: {
  entry: Entry
  open: string | null
  onOpen: (id: string | null) => void
  className: string
  children: React.ReactNode
}) {
  const { entry, open, onOpen } = props
  return (
    <button
      type="button"
      data-entry={entry.id}
      className={`${props.className} ${entry.state === 'cancelled' ? 'is-cancelled' : ''}`}
      aria-expanded={open === entry.id}
      onClick={() => onOpen(open === entry.id ? null : entry.id)}
    >
      {props.children}
    </button>
  )
}

/** The entry may stand on several days, and in a view that is not shown at this width. */
export function focusEntry(entry: Entry): void {
  const buttons = [...document.querySelectorAll<HTMLElement>('[data-entry]')]
  buttons.find((button) => button.dataset.entry === entry.id && button.offsetParent !== null)?.focus()
}
