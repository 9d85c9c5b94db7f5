import type { Edition } from '../api'
import type { Draft } from './draft'
import { Choice } from './Step'

interface FeedFormProps {
  draft: Draft
  saved: Edition | undefined
  onChange: (part: Partial<Draft>) => void
}

/** How the feed is made, and what whoever subscribes will have of it. */
export function FeedForm({ draft, saved, onChange }: FeedFormProps) {
  const willRename = saved && (saved.edition.feed ?? 'series') !== (draft.feed ?? 'series')
  return (
    <section aria-labelledby="feed-form">
      <h3 id="feed-form">For those who subscribe</h3>
      <p className="sentence">
        Programs get{' '}
        <Choice
          label="How the feed is made"
          value={draft.feed ?? 'series'}
          options={{ series: 'series, with their rules', dates: 'each date by itself' }}
          onChange={(feed) => onChange({ feed })}
        />
      </p>
      <p className="soft">{draft.feed === 'dates' ? wordsOfDates(draft) : wordsOfSeries(draft)}</p>
      {willRename && (
        <p className="remark" role="status">
          With this change every entry gets a new name. Programs that subscribed take all entries away and add them anew:
          reminders and notes that people put on them are lost.
        </p>
      )}
    </section>
  )
}

function wordsOfSeries(draft: Draft): string {
  if (draft.cap === 'times') return 'Busy times come date by date all the same, so that nothing says which belong together.'
  const more = [
    limitOf(draft) && `more than the ${limitOf(draft)}`,
    draft.window.withPast === false && 'what is over too',
    !isOpen(draft) && 'dates of a series beyond the days of this edition',
  ].filter(Boolean)
  const unlike = more.length > 0 ? ` So they have ${joined(more as string[])}, unlike the page.` : ''
  return `A series is one event, and programs work its dates out themselves, as far ahead as they like.${unlike}`
}

function wordsOfDates(draft: Draft): string {
  const limit = limitOf(draft)
  const exactly = [
    limit && `the ${limit}`,
    draft.window.withPast === false && 'none that is over',
    draft.mergesLookAlikes && 'look-alikes as one',
  ].filter(Boolean)
  const said = exactly.length > 0 ? `: ${joined(exactly as string[])}` : ''
  const until = draft.window.to === 'open' || !draft.window.to ? ' Without an end they see about two years ahead.' : ''
  return `They have exactly the entries of the page${said}. Each date is an event of its own.${until}`
}

const limitOf = (draft: Draft) => (draft.limit ? `first ${draft.limit} entries` : null)

const isOpen = (draft: Draft) => (draft.window.from ?? 'beginning') === 'beginning' && (draft.window.to ?? 'open') === 'open'

const joined = (parts: string[]) => (parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`)
