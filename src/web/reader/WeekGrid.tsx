import { addDays, isWeekend, type Day } from '../shared/days'
import { firstDay, touches } from '../shared/slips'
import type { Entry } from './edition'
import { EntryDetails } from './EntryDetails'
import { EntryItem, EntryPlates, EntryState } from './EntryItem'
import { spotOf, usePage } from './page'
import { Said } from './Said'

/** Days side by side as columns of a timetable, or one below the other where the frame is narrow. One day is a column of its own. */
export function WeekGrid({ days, entries }: { days: Day[]; entries: Entry[] }) {
  const { open, edition, speech, today } = usePage()
  const opened = open && entries.find((entry) => days.some((day) => spotOf(entry, day) === open))
  return (
    <>
      <ol className={`columns columns-${days.length}`}>
        {days.map((day) => {
          const onDay = entries.filter((entry) =>
            edition.look.severalDays === 'first' ? firstDay(entry) === day : touches(entry, day),
          )
          return (
            <li
              key={day}
              className={[
                'column',
                isWeekend(day) && 'is-weekend',
                day === today && 'is-today',
                onDay.length > 0 ? 'is-busy' : 'is-empty',
              ]
                .filter(Boolean)
                .join(' ')}
            >
              <h3 aria-current={day === today ? 'date' : undefined}>
                <b>
                  <Said>{speech.dayName(day, today)}</Said>
                </b>{' '}
                <Said>{speech.format(day, { day: 'numeric', month: 'short' })}</Said>
              </h3>
              {onDay.length === 0 ? (
                <p className="nothing">{speech.words.nothingDay}</p>
              ) : (
                <ul>
                  {onDay.map((entry) => (
                    <li key={entry.id}>
                      <EntryItem entry={entry} where={day} className="card-line">
                        <span className="line-when">
                          <Said>{speech.span(entry, day, edition.look.severalDays)}</Said> <EntryPlates entry={entry} />
                        </span>
                        <span className="line-title" dir="auto">
                          {entry.title}
                        </span>
                        {entry.place && (
                          <span className="line-place" dir="auto">
                            {entry.place}
                          </span>
                        )}
                        <EntryState entry={entry} />
                      </EntryItem>
                    </li>
                  ))}
                </ul>
              )}
            </li>
          )
        })}
      </ol>
      {opened && <EntryDetails entry={opened} />}
    </>
  )
}

export function weekFrom(first: Day): Day[] {
  return Array.from({ length: 7 }, (_, index) => addDays(first, index))
}
