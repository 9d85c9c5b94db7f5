import { useEffect, useState } from 'react'
import { Closed, fetchBelow, type Change, type ChangeList } from './edition'
import { EntryPlates } from './EntryItem'
import { usePage } from './page'

/** Milliseconds after which a list that could not be had is asked for once more. */
const AGAIN_AFTER = 3_000

/** What came, went, moved or was cancelled in the last 14 days, with what it was. */
export function Changes({ version, onClose }: { version: string; onClose: () => void }) {
  const { addresses, speech } = usePage()
  const { words } = speech
  const [changes, setChanges] = useState<ChangeList | 'away' | null>(null)
  useEffect(() => {
    let isWanted = true
    let timer: ReturnType<typeof setTimeout> | undefined
    const ask = () =>
      fetchBelow<ChangeList>(addresses.base, '/changed.json').then(
        (got) => isWanted && setChanges(got),
        (problem) => {
          if (!isWanted) return
          setChanges('away')
          // A page that was closed is asked for no more.
          if (!(problem instanceof Closed)) timer = setTimeout(() => void ask(), AGAIN_AFTER)
        },
      )
    void ask()
    return () => {
      isWanted = false
      clearTimeout(timer)
    }
  }, [addresses.base, version])
  return (
    <section className="panel" aria-label={words.changes} onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <div className="panel-head">
        <h3>{words.changes}</h3>
        <button type="button" className="plain" onClick={onClose}>
          {words.close}
        </button>
      </div>
      {changes === 'away' && <p role="status">{words.away}</p>}
      {changes !== 'away' && changes?.changes.length === 0 && !changes.holdsBack && <p role="status">{words.noChanges}</p>}
      {changes !== 'away' && (
        <ul className="changes">
          {changes?.changes.map((change) => (
            <li key={`${change.entry.id} ${change.change}`}>
              <EntryPlates entry={change.entry} />{' '}
              <b className={change.change === 'cancelled' || change.change === 'removed' ? 'struck' : undefined}>
                {change.entry.title}
              </b>{' '}
              <ChangeWords change={change} />
            </li>
          ))}
        </ul>
      )}
      {changes !== 'away' && changes?.holdsBack && <p role="status">{words.moreChanged}</p>}
      {addresses.atom && (
        <p>
          <a href={addresses.atom} target="_blank" rel="noopener">
            Atom
          </a>
        </p>
      )}
    </section>
  )
}

function ChangeWords({ change }: { change: Change }) {
  const { speech } = usePage()
  const { words } = speech
  const was = speech.when({ start: change.wasStart, end: change.wasEnd, allDay: change.entry.allDay })
  const later = change.more > 0 ? ` ${speech.fill('andLater', { count: change.more })}` : ''
  switch (change.change) {
    case 'cancelled':
      return (
        <>
          <span className="cancelled">{words.cancelled}</span> {was}
          {later}
        </>
      )
    case 'removed':
      return (
        <>
          <span className="cancelled">{words.removed}</span> {was}
          {later}
        </>
      )
    case 'new':
      return (
        <>
          {words.new}: {speech.when(change.entry)}
          {later}
        </>
      )
    case 'takesPlace':
      return (
        <>
          {words.takesPlace}: {was}
          {later}
        </>
      )
    case 'relocated':
      return (
        <>
          {was}: {change.entry.place} <span className="soft">({speech.fill('wasAt', { when: change.wasPlace })})</span>
          {later}
        </>
      )
    default:
      return (
        <>
          {speech.when(change.entry)} <span className="soft">({speech.fill('wasAt', { when: was })})</span>
          {later}
        </>
      )
  }
}
