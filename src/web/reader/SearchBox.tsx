import { useState } from 'react'
import type { Entry } from './edition'
import { EntryList } from './EntryList'
import { usePage, sourcesOf } from './page'

/** Finds entries by what stands in them, over all of the edition's days. */
export function SearchBox({ entries, onWanted }: { entries: Entry[] | null; onWanted: () => void }) {
  const { edition, speech } = usePage()
  const [text, setText] = useState('')
  const needle = plain(text.trim())
  const found =
    needle && entries
      ? entries.filter((entry) =>
          plain(
            [
              entry.title,
              entry.place,
              entry.category?.name,
              entry.contact,
              entry.description.replace(/<[^>]*>/g, ' '),
              ...sourcesOf(entry, edition).map((source) => source.name),
            ].join(' '),
          ).includes(needle),
        )
      : []
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
            <EntryList entries={found.slice(0, 100)} from="1900-01-01" to="2200-01-01" empty="" name="found" />
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
