import { useEffect, useRef } from 'react'
import { addMonths, monthOf, type Day, type Month } from '../shared/days'
import type { Entry } from './edition'
import { EntryList } from './EntryList'
import { MonthGrid } from './MonthGrid'
import { PageContext, usePage, type Page } from './page'

/** At most a year of months. */
const MOST_MONTHS = 13

/** The edition on paper: a month on each page, or one list. It asks for the printer once it is there. */
export function Sheet({
  kind,
  entries,
  from,
  to,
  onDone,
}: {
  kind: 'months' | 'list'
  entries: Entry[]
  from: Day
  to: Day
  onDone: () => void
}) {
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
