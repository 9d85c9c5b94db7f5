import { useEffect, useMemo, useState } from 'react'
import { addMonths, monthOf, placeOfZone, sayMonth, todayIn } from '../shared/days'
import { Plate } from '../shared/Plate'
import { entriesOf, monthsOfList, type PageData } from './edition'
import { EntryList } from './EntryList'
import { MonthGrid } from './MonthGrid'
import { Subscribe } from './Subscribe'
import { useMonths } from './useMonths'

type View = 'month' | 'list'

/** The reading page, and the embed: the same thing, with less around it. */
export function Reader({ data }: { data: PageData }) {
  const first = data.months[0]
  if (!first) throw new Error('The page holds no month.')
  const { months, freshness, require } = useMonths(data, first.edition)
  const [month, setMonth] = useState(first.month)
  const [view, setView] = useState<View>('month')
  const [open, setOpen] = useState<string | null>(null)
  const [subscribing, setSubscribing] = useState(false)

  const wanted = useMemo(() => (view === 'list' ? monthsOfList(month) : [month]), [view, month])
  useEffect(() => require(wanted), [require, wanted])

  const edition = months.get(month)?.edition ?? months.get(first.month)?.edition ?? first.edition
  const today = todayIn(edition.zone)
  const entries = entriesOf(months, wanted)
  const isLoading = freshness === 'current' && wanted.some((one) => !months.has(one))

  const go = (target: string) => {
    setMonth(target)
    setOpen(null)
  }

  if (freshness === 'closed')
    return (
      <main className="edition" aria-label={edition.name}>
        <p className="notice">This calendar is not open any more.</p>
      </main>
    )

  return (
    <main className="edition" aria-label={edition.name}>
      <header className="edition-head">
        <div className="edition-name">
          <Plate code={edition.plate} colour={edition.colour} />
          <h1>{edition.name}</h1>
          <span className="organisation">{edition.organisation}</span>
        </div>
        {edition.description && <p className="edition-about">{edition.description}</p>}
        <div className="edition-tools">
          <h2 aria-live="polite">{sayMonth(month, edition.locale)}</h2>
          <div className="joined" role="group" aria-label="Other months">
            <button type="button" onClick={() => go(addMonths(month, -1))} aria-label="Month before">
              ‹
            </button>
            <button type="button" onClick={() => go(monthOf(today))}>
              Today
            </button>
            <button type="button" onClick={() => go(addMonths(month, 1))} aria-label="Month after">
              ›
            </button>
          </div>
          <span className="stretch" />
          <div className="joined" role="group" aria-label="View">
            <button type="button" aria-pressed={view === 'month'} onClick={() => setView('month')}>
              Month
            </button>
            <button type="button" aria-pressed={view === 'list'} onClick={() => setView('list')}>
              List
            </button>
          </div>
          {edition.isLive && (
            <button type="button" className="plain" aria-expanded={subscribing} onClick={() => setSubscribing(!subscribing)}>
              Subscribe
            </button>
          )}
        </div>
      </header>
      {subscribing && <Subscribe edition={edition} onClose={() => setSubscribing(false)} />}
      {freshness === 'away' && (
        <p className="notice" role="status">
          The newest dates could not be fetched. What you see may be older.
        </p>
      )}
      {isLoading && (
        <p className="notice" role="status">
          Fetching {sayMonth(month, edition.locale)} …
        </p>
      )}
      {view === 'month' ? (
        <MonthGrid key={month} month={month} entries={entries} edition={edition} today={today} open={open} onOpen={setOpen} />
      ) : (
        <EntryList
          entries={entries}
          from={month === monthOf(today) ? today : `${month}-01`}
          edition={edition}
          today={today}
          open={open}
          onOpen={setOpen}
          empty="Nothing is on in these weeks."
        />
      )}
      <footer className="edition-foot">
        <span>Times are {placeOfZone(edition.zone)} times</span>
        <span className="stretch" />
        {edition.isLive && (
          <a href={edition.page} target="_blank" rel="noopener" className="only-embedded">
            Whole page
          </a>
        )}
        <button type="button" className="as-link" onClick={() => window.print()}>
          Print
        </button>
      </footer>
    </main>
  )
}
