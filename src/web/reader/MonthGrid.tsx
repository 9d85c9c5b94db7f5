import { Fragment, useState } from 'react'
import { addDays, isWeekend, monthOf, weeksOf, type Day, type Month } from '../shared/days'
import { sayNumber } from '../shared/formats'
import { firstDay, touches } from '../shared/slips'
import { useArrowKeys } from '../shared/useArrowKeys'
import { ActLink } from './ActLink'
import type { Entry } from './edition'
import { EntryDetails } from './EntryDetails'
import { EntryItem, EntryPlates, ShapeInWords } from './EntryItem'
import { EntryList } from './EntryList'
import { sourcesOf, spotOf, usePage } from './page'
import { Picture } from './Picture'
import { Said } from './Said'

/** More than this many stand behind "more" until somebody wants them. */
const MOST = 6

interface MonthGridProps {
  month: Month
  /** The day that somebody went to, if it was one and not the month. */
  day?: Day
  entries: Entry[]
  /** Numbers with marks at any width. */
  isSmall?: boolean
}

/**
 * A month by weeks. Where it is wide enough each day says what is on; in a narrow column the days are numbers with marks,
 * and a list of the chosen day stands below. Style sheets choose between the two by the width of the frame.
 * The days are one stop of the Tab key with the arrow keys moving between them; the next Tab leads into the chosen day's entries.
 */
export function MonthGrid({ month, day, entries, isSmall = false }: MonthGridProps) {
  const { edition, speech, today, isSheet } = usePage()
  const weeks = weeksOf(month, edition.firstDayOfWeek)
  const firstBusy = entries.map((entry) => firstDay(entry)).find((day) => monthOf(day) === month)
  const [chosen, setChosen] = useState<Day>(
    day && !day.endsWith('-01') ? day : monthOf(today) === month ? today : (firstBusy ?? `${month}-01`),
  )
  const arrows = useArrowKeys()
  return (
    <div className={isSmall ? 'month is-small' : 'month'}>
      <table className="weeks" ref={arrows}>
        <caption className={isSheet ? 'sheet-name' : 'visually-hidden'}>
          <Said>{speech.format(`${month}-01`, { month: 'long', year: 'numeric' })}</Said>
        </caption>
        <thead>
          <tr>
            {weeks[0]?.map((day) => (
              <th key={day} scope="col" className={isWeekend(day) ? 'is-weekend' : undefined}>
                <abbr title={speech.format(day, { weekday: 'long' })} suppressHydrationWarning>
                  <Said className="long">{speech.format(day, { weekday: 'short' })}</Said>
                  <span className="short" aria-hidden="true">
                    <Said>{speech.format(day, { weekday: 'narrow' })}</Said>
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
                {week.map((day, index) => (
                  <DayCell
                    key={day}
                    day={day}
                    isFirstOfWeek={index === 0}
                    month={month}
                    entries={onDay(entries, day, edition.look.severalDays)}
                    isChosen={day === chosen}
                    onChoose={setChosen}
                  />
                ))}
              </tr>
              <OpenDetails week={week} entries={entries} />
            </Fragment>
          ))}
        </tbody>
      </table>
      {!isSheet && (
        <div className="chosen-day">
          <EntryList
            name="day"
            entries={entries.filter((entry) => touches(entry, chosen))}
            from={chosen}
            to={addDays(chosen, 1)}
            empty={speech.fill('nothingOn', { day: speech.longDay(chosen) })}
          />
        </div>
      )}
    </div>
  )
}

function onDay(entries: Entry[], day: Day, several: 'each' | 'first'): Entry[] {
  return entries.filter((entry) => (several === 'first' ? firstDay(entry) === day : touches(entry, day)))
}

interface DayCellProps {
  day: Day
  isFirstOfWeek: boolean
  month: Month
  entries: Entry[]
  isChosen: boolean
  onChoose: (day: Day) => void
}

function DayCell({ day, isFirstOfWeek, month, entries, isChosen, onChoose }: DayCellProps) {
  const { edition, speech, today, onOpen, isSheet, linkTo } = usePage()
  const [isWhole, setWhole] = useState(false)
  const classes = [
    isWeekend(day) && 'is-weekend',
    monthOf(day) !== month && 'is-outside',
    day === today && 'is-today',
    entries.length > 0 ? 'is-busy' : 'is-empty',
    isChosen && 'is-chosen',
  ]
  const number = sayNumber(Number(day.slice(8)), speech.locale)
  const shown = isWhole || isSheet ? entries : entries.slice(0, entries.length > MOST + 1 ? MOST : MOST + 1)
  const pictured = edition.look.picturesInMonth
    ? entries.find((entry) => entry.picture && firstDay(entry) === day)?.picture
    : undefined
  const about = entries.length === 0 ? speech.words.nothingDay : speech.fill('someOn', { count: entries.length })
  return (
    <td className={classes.filter(Boolean).join(' ')}>
      {isSheet ? (
        <Said className="day-number">{number}</Said>
      ) : (
        <ActLink
          href={linkTo({ date: day })}
          className="day-choice"
          data-cell
          pressed={isChosen}
          aria-current={day === today ? 'date' : undefined}
          aria-label={`${speech.longDay(day)}, ${about}`}
          suppressHydrationWarning
          onFocus={() => onChoose(day)}
          onPress={() => {
            onChoose(day)
            onOpen(null)
          }}
        >
          <Said>{number}</Said>
          <span className="marks" aria-hidden="true">
            {entries.slice(0, 4).map((entry) => (
              <i key={entry.id} className={`hue-${sourcesOf(entry, edition)[0]?.colour ?? 'slate'}`} />
            ))}
          </span>
        </ActLink>
      )}
      {pictured && (
        <div className="cell-picture wide-only">
          <Picture picture={pictured} sizes="180px" isMute />
        </div>
      )}
      <ul className="wide-only">
        {shown.map((entry) => (
          <li key={entry.id}>
            <EntryItem
              entry={entry}
              where={day}
              className={`entry${firstDay(entry) < day && !isFirstOfWeek ? ' goes-on' : ''}`}
              isStop={isChosen}
            >
              <EntryPlates entry={entry} /> <Said className="entry-time">{speech.short(entry, day)}</Said>{' '}
              <span className="entry-title" dir="auto">
                {entry.title}
              </span>
              <ShapeInWords entry={entry} />
            </EntryItem>
          </li>
        ))}
        {shown.length < entries.length && (
          <li>
            <ActLink className="as-link more" href={linkTo({ view: 'list', date: day })} onPress={() => setWhole(true)}>
              <Said>{speech.fill('more', { count: entries.length - shown.length })}</Said>
            </ActLink>
          </li>
        )}
      </ul>
    </td>
  )
}

/** The details stand under the week of their entry, so that a frame of any size can show them. */
function OpenDetails({ week, entries }: { week: Day[]; entries: Entry[] }) {
  const { open } = usePage()
  const entry = open && entries.find((one) => week.some((day) => spotOf(one, day) === open))
  if (!entry) return null
  return (
    <tr className="wide-only details-row">
      <td colSpan={7}>
        <EntryDetails entry={entry} />
      </td>
    </tr>
  )
}
