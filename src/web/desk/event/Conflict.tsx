import type { Draft } from './draft'

const names: Partial<Record<keyof Draft, string>> = {
  title: 'Title',
  calendarId: 'Calendar',
  allDay: 'All day',
  date: 'Day',
  endDate: 'Last day',
  from: 'From',
  to: 'To',
  place: 'Where',
  description: 'About',
  pattern: 'How often',
  interval: 'Every',
  weekdays: 'Weekdays',
  ends: 'Ends',
  until: 'Until',
  count: 'Number of dates',
  by: 'Which day',
  monthDay: 'Day of the month',
  ruleText: 'Rule',
  inBreaks: 'In breaks',
  tags: 'Tags',
  extra: 'Dates added',
  removed: 'Dates taken out',
  placements: 'Shown on',
  contact: 'Contact',
  notes: 'Notes',
}

interface ConflictProps {
  mine: Draft
  theirs: Draft
  savedBy: string
  isRemoved: boolean
  onKeepMine: () => void
}

/** Somebody else saved first: what differs, side by side, and the choice. */
export function Conflict({ mine, theirs, savedBy, isRemoved, onKeepMine }: ConflictProps) {
  if (isRemoved)
    return (
      <div className="conflict" role="alert">
        <p>
          <b>{savedBy} removed this event while you were working on it.</b> Your text is still here; copy what you need. It can be
          restored from its page.
        </p>
      </div>
    )
  const differing = (Object.keys(names) as (keyof Draft)[]).filter(
    (field) => JSON.stringify(mine[field]) !== JSON.stringify(theirs[field]),
  )
  return (
    <div className="conflict" role="alert">
      <p>
        <b>{savedBy} saved this event while you were working on it.</b> Nothing of yours is saved yet.
      </p>
      <table>
        <thead>
          <tr>
            <th scope="col" />
            <th scope="col">Saved by {savedBy}</th>
            <th scope="col">Yours</th>
          </tr>
        </thead>
        <tbody>
          {differing.map((field) => (
            <tr key={field}>
              <th scope="row">{names[field]}</th>
              <td>{say(theirs[field])}</td>
              <td>{say(mine[field])}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="btn btn-outline-ink" onClick={onKeepMine}>
        Save mine in its place
      </button>{' '}
      <button type="button" className="btn btn-quiet" onClick={() => window.location.reload()}>
        Take theirs, drop mine
      </button>
    </div>
  )
}

function say(value: Draft[keyof Draft]): string {
  if (value === null || value === '') return '–'
  if (typeof value === 'string') return value.replaceAll(/<[^>]+>/g, ' ').trim()
  return Array.isArray(value) ? value.join(', ') : value ? 'yes' : 'no'
}
