import { useState } from 'react'
import type { Day } from '../shared/days'
import { lastDay } from '../shared/slips'
import type { Entry } from './edition'
import { EntryList } from './EntryList'
import { PageContext, sourcesOf, usePage, type Page } from './page'

const MOST = 100

interface SearchBoxProps {
  /** With what it begins. */
  find: string
  entries: Entry[] | null
  today: Day
  onWanted: () => void
}

/** Finds entries by what stands in them, over all of the edition's days. */
export function SearchBox({ find, entries, today, onWanted }: SearchBoxProps) {
  const page = usePage()
  const { edition, speech } = page
  const [text, setText] = useState(find)
  const needle = plain(text.trim())
  const found =
    needle && entries
      ? entries.filter((entry) =>
          plain([...textsOf(entry), ...sourcesOf(entry, edition).map((source) => source.name)].join(' ')).includes(needle),
        )
      : []
  // What comes next stands first, and what lasts for days stands once.
  const coming = found.filter((entry) => lastDay(entry) >= today).slice(0, MOST)
  const past = found.filter((entry) => lastDay(entry) < today).slice(-(MOST - coming.length) || found.length)
  const once: Page = { ...page, edition: { ...edition, look: { ...edition.look, severalDays: 'first', grouping: 'day' } } }
  return (
    <div className="search" role="search">
      <label>
        <span className="visually-hidden">{speech.words.search}</span>
        <input
          type="search"
          value={text}
          placeholder={speech.words.search}
          onFocus={onWanted}
          onChange={(event) => {
            onWanted()
            setText(event.target.value)
          }}
        />
      </label>
      {needle && entries && (
        <section className="panel found" aria-label={speech.words.search}>
          <p role="status">{found.length === 0 ? speech.words.foundNone : speech.fill('found', { count: found.length })}</p>
          {found.length > 0 && (
            <PageContext value={once}>
              <EntryList entries={coming} from={today} to="2200-01-01" empty="" name="found" />
              <EntryList entries={past} from="1900-01-01" to={today} empty="" name="past" />
            </PageContext>
          )}
        </section>
      )}
    </div>
  )
}

/** Without regard to case and accents. */
function plain(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
}

const notRead: (keyof Entry)[] = ['id', 'start', 'end', 'state']

/** All that is written in an entry. */
function textsOf(entry: Entry): string[] {
  const texts = Object.entries(entry).filter(([field]) => !notRead.includes(field as keyof Entry))
  return [...texts.map(([, text]) => (typeof text === 'string' ? text.replace(/<[^>]*>/g, ' ') : '')), entry.category?.name ?? '']
}
