import { addDays, type Day } from '../shared/days'
import type { Entry } from './edition'
import { EntryLine } from './EntryLine'
import { groupsOf, type Group } from './groups'
import { usePage } from './page'
import { Said } from './Said'

interface EntryListProps {
  entries: Entry[]
  /** From this day on … */
  from: Day
  /** … and before this one. */
  to: Day
  /** What to say when there is nothing. */
  empty: string
  /** Which of a page's lists it is. */
  name: string
}

/** What is on, in order of time, under headings: days beside their lines, everything else above them. */
export function EntryList({ entries, from, to, empty, name }: EntryListProps) {
  const { edition, today } = usePage()
  const groups = groupsOf(entries, from, to, edition)
  if (groups.length === 0)
    return (
      <p className="nothing">
        <Said>{empty}</Said>
      </p>
    )
  return (
    <ol className="days">
      {groups.map((group) => (
        <li key={group.key} className={`day by-${group.by}${group.by === 'day' && group.key === today ? ' is-today' : ''}`}>
          <Heading group={group} />
          <ul>
            {group.lines.map(({ day, entry }, index) => (
              <LineOf
                key={`${entry.id} ${day}`}
                list={name}
                group={group}
                day={day}
                entry={entry}
                isNewDay={group.lines[index - 1]?.day !== day}
              />
            ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}

interface LineOfProps {
  list: string
  group: Group
  day: Day
  entry: Entry
  /** The line above it is of another day. */
  isNewDay: boolean
}

/** Outside of its day's own heading the first line of a day has to say the day. */
function LineOf({ list, group, day, entry, isNewDay }: LineOfProps) {
  const { edition, speech } = usePage()
  const saysDate = !isNewDay || group.by === 'day' || edition.look.line.some((part) => part.piece === 'date')
  const line = <EntryLine entry={entry} day={day} where={`${list} ${group.key} ${day}`} />
  if (saysDate) return line
  return (
    <>
      <li className="line-day">
        <Said>{speech.day(day)}</Said>
      </li>
      {line}
    </>
  )
}

function Heading({ group: { key, by } }: { group: Group }) {
  const { edition, speech, today } = usePage()
  if (by === 'time' || key === '') return null
  if (by === 'day')
    return (
      <h3 className="day-name">
        <b>
          <Said>{speech.dayName(key, today)}</Said>
        </b>{' '}
        <Said>{speech.format(key, { day: 'numeric', month: 'short' })}</Said>
      </h3>
    )
  const words = {
    week: () => `${speech.day(key)} – ${speech.day(addDays(key, 6))}`,
    month: () => speech.format(`${key}-01`, { month: 'long', year: 'numeric' }),
    calendar: () => edition.sources.find((source) => source.plate === key)?.name ?? key,
    category: () => key,
  }[by]
  return (
    <h3 className="group-name">
      <Said>{words()}</Said>
    </h3>
  )
}
