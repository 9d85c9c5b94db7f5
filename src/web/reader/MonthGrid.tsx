import { Fragment, useState } from 'react'
import { isWeekend, monthOf, sayDay, weeksOf, type Day, type Month } from '../shared/days'
import { Plate } from '../shared/Plate'
import { sayTimeShort, touches } from '../shared/slips'
import type { Edition, Entry } from './edition'
import { EntryButton, EntryDetails, focusEntry } from './EntryDetails'
import { EntryList } from './EntryList'
import { useArrowKeys } from '../shared/useArrowKeys'

interface MonthGridProps {
  month: Month
  entries: Entry[]
  edition: Edition
  today: Day
  open: string | null
  onOpen: (id: string | null) => void
}

/**
 * A month by weeks. Where it is wide enough each day says what is on; in a narrow column the days are numbers with marks,
 * and a list of the chosen day stands below. Style sheets choose between the two by the width of the frame.
 */
export function MonthGrid({ month, entries, edition, today, open, onOpen }: MonthGridProps) {
  const weeks = weeksOf(month, edition.firstDayOfWeek)
  const firstBusy = entries.map((entry) => entry.start.slice(0, 10)).find((day) => monthOf(day) === month)
  const [chosen, setChosen] = useState<Day>(monthOf(today) === month ? today : (firstBusy ?? `${month}-01`))
  const arrows = useArrowKeys()
  return (
    <div className="month">
      <table className="weeks" ref={arrows}>
        <caption className="visually-hidden">{sayDay(`${month}-01`, edition.locale, { month: 'long', year: 'numeric' })}</caption>
        <thead>
          <tr>
            {weeks[0]?.map((day) => (
              <th key={day} scope="col" className={isWeekend(day) ? 'is-weekend' : undefined}>
                <abbr title={sayDay(day, edition.locale, { weekday: 'long' })}>
                  <span className="long">{sayDay(day, edition.locale, { weekday: 'short' })}</span>
                  <span className="short" aria-hidden="true">
                    {sayDay(day, edition.locale, { weekday: 'narrow' })}
                  </span>
                </abbr>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weeks.map((week) => (
            <Fragment key={week[0]}>
              <tr>
                {week.map((day) => (
                  <DayCell
                    key={day}
                    day={day}
                    {...{ month, entries, edition, today, open, onOpen, chosen }}
                    onChoose={setChosen}
                  />
                ))}
              </tr>
              <OpenDetails week={week} entries={entries} edition={edition} open={open} onOpen={onOpen} />
            </Fragment>
          ))}
        </tbody>
      </table>
      <div className="chosen-day">
        <EntryList
          entries={entries.filter((entry) => touches(entry, chosen))}
          from={chosen}
          edition={edition}
          today={today}
          open={open}
          onOpen={onOpen}
          empty={`Nothing is on ${sayDay(chosen, edition.locale, { weekday: 'long', day: 'numeric', month: 'long' })}.`}
        />
      </div>
    </div>
  )
}

function DayCell(props: MonthGridProps & { day: Day; chosen: Day; onChoose: (day: Day) => void }) {
  const { day, edition } = props
  const onDay = props.entries.filter((entry) => touches(entry, day))
  const classes = [
    isWeekend(day) && 'is-weekend',
    monthOf(day) !== props.month && 'is-outside',
    day === props.today && 'is-today',
    day === props.chosen && 'is-chosen',
  ]
  const number = Number(day.slice(8))
  const name = sayDay(day, edition.locale, { weekday: 'long', day: 'numeric', month: 'long' })
  return (
    <td className={classes.filter(Boolean).join(' ')}>
      <span className="day-number wide-only" aria-current={day === props.today ? 'date' : undefined}>
        {number}
      </span>
      <ul className="wide-only">
        {onDay.map((entry) => (
          <li key={entry.id}>
            <EntryButton entry={entry} open={props.open} onOpen={props.onOpen} className="entry">
              <Plate code={entry.plate} colour={entry.colour} size="small" />{' '}
              <span className="entry-time">{sayTimeShort(entry, day)}</span> <span className="entry-title">{entry.title}</span>
            </EntryButton>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="day-choice narrow-only"
        data-cell
        aria-pressed={day === props.chosen}
        aria-label={`${name}, ${onDay.length === 0 ? 'nothing on' : `${onDay.length} on`}`}
        onClick={() => (props.onChoose(day), props.onOpen(null))}
      >
        {number}
        <span className="marks" aria-hidden="true">
          {onDay.slice(0, 4).map((entry) => (
            <i key={entry.id} className={`hue-${entry.colour}`} />
          ))}
        </span>
      </button>
    </td>
  )
}

/** The details stand under the week of their entry, so that a frame of any size can show them. */
function OpenDetails(props: {
  week: Day[]
  entries: Entry[]
  edition: Edition
  open: string | null
  onOpen: (id: string | null) => void
}) {
  const entry = props.entries.find((one) => one.id === props.open)
  const day = entry && props.week.find((one) => touches(entry, one))
  if (!entry || !day || (props.week[0] ?? '') > entry.start.slice(0, 10)) return null
  return (
    <tr className="wide-only details-row">
      <td colSpan={7}>
        <EntryDetails entry={entry} edition={props.edition} onClose={() => (props.onOpen(null), focusEntry(entry))} />
      </td>
    </tr>
  )
}
