import { useEffect, useRef } from 'react'
import { addDays, addMonths, monthOf, type Day, type Month } from '../shared/days'
import { firstDay, lastDay } from '../shared/slips'
import type { WallEntry, YearSheet } from '../shared/wall'
import { WallSheet, type Paper } from '../shared/WallSheet'
import type { Edition, Entry } from './edition'
import { EntryList } from './EntryList'
import { MonthGrid } from './MonthGrid'
import { PageContext, sourcesOf, usePage, type Page } from './page'
import type { Speech } from './speech'

/** At most a year of months. */
const MOST_MONTHS = 13

export type SheetKind = 'months' | 'list' | Paper

interface SheetProps {
  kind: SheetKind
  entries: Entry[]
  from: Day
  to: Day
  /** For a year on one sheet. */
  year: YearSheet | undefined
  onDone: () => void
}

/** The edition on paper: a month on each page, one list, or a year on one sheet. It asks for the printer once it is there. */
export function Sheet({ kind, entries, from, to, year, onDone }: SheetProps) {
  const page = usePage()
  const asked = useRef(false)
  useEffect(() => {
    window.addEventListener('afterprint', onDone)
    if (!asked.current) {
      asked.current = true
      window.print()
    }
    return () => window.removeEventListener('afterprint', onDone)
  }, [onDone])
  // Paper is read on other days than today, and what lasts for weeks stands on it once.
  const sheet: Page = {
    ...page,
    isSheet: true,
    open: null,
    today: '1900-01-01',
    edition: kind === 'list' ? { ...page.edition, look: { ...page.edition.look, severalDays: 'first' } } : page.edition,
  }
  if (kind === 'a3' || kind === 'a4') return year && <Year paper={kind} year={year} entries={entries} />
  const months: Month[] = []
  for (let month = monthOf(from); `${month}-01` < to && months.length < MOST_MONTHS; month = addMonths(month, 1))
    months.push(month)
  return (
    <PageContext value={sheet}>
      <div className="sheet" role="status" aria-label={page.speech.words.print}>
        <h1>{page.edition.name}</h1>
        <p className="soft">
          {page.edition.organisation} · {page.speech.zone(page.edition)}
        </p>
        {kind === 'list' ? (
          <EntryList name="sheet" entries={entries} from={from} to={to} empty={page.speech.words.nothing} />
        ) : (
          // The days before and after a month stand on its page too, so they say what is on.
          months.map((month) => <MonthGrid key={month} month={month} entries={entries} />)
        )}
      </div>
    </PageContext>
  )
}

function Year({ paper, year, entries }: { paper: Paper; year: YearSheet; entries: Entry[] }) {
  const { edition, speech, today } = usePage()
  const { words } = speech
  const often = new Set(year.often.map((one) => one.id))
  const [first, last] = [year.from.slice(0, 4), addDays(year.to, -1).slice(0, 4)]
  const span = speech.fill('yearOf', { year: first === last ? first : `${first}/${last.slice(2)}` })
  const asOf = speech.fill('asOf', { day: speech.format(today, { day: 'numeric', month: 'long', year: 'numeric' }) })
  return (
    <div className="sheet" role="status" aria-label={words.print}>
      <WallSheet
        name={edition.name}
        about={[span, edition.organisation, speech.zone(edition), asOf].join(' · ')}
        year={year}
        entries={entries
          .filter((entry) => !entry.isBreak && !often.has(entry.id.slice(0, entry.id.lastIndexOf('/'))))
          .map((entry) => wallEntryOf(entry, edition, speech))}
        calendars={edition.sources}
        paper={paper}
        locale={speech.locale}
        words={{
          more: (count) => speech.fill('moreNextSheet', { count }),
          fullDays: words.fullDays,
          often: words.often,
          oftenBehind: (count) => speech.fill('oftenBehind', { count }),
          times: (count) => speech.fill('times', { count }),
          calendars: words.calendars,
        }}
      />
    </div>
  )
}

function wallEntryOf(entry: Entry, edition: Edition, speech: Speech): WallEntry {
  const sources = sourcesOf(entry, edition)
  return {
    id: entry.id,
    title: entry.title,
    first: firstDay(entry),
    last: lastDay(entry),
    time: entry.allDay ? '' : speech.time(entry.start),
    // What an edition of one calendar shows needs no plate to say whose it is.
    colour: sources[0]?.colour ?? edition.sources[0]?.colour ?? 'slate',
    plates: edition.sources.length > 1 ? sources.map(({ plate, colour }) => ({ code: plate, colour })) : [],
    isCancelled: entry.state === 'cancelled',
    isDraft: entry.state === 'draft' || entry.state === 'waiting',
    isDue: entry.kind === 'deadline',
    isUncertain: entry.certainty === 'tentative',
  }
}
