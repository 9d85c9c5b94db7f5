import { sayDay, type Day } from './days'
import { Plate } from './Plate'
import { wallOf, type Wall, type WallDay, type WallEntry, type WallLine, type YearSheet } from './wall'

export type Paper = 'a3' | 'a4'

/** What a sheet says in words of its own. */
export interface WallWords {
  more: (count: number) => string
  /** Above the days that could not hold all that is on them. */
  fullDays: string
  /** Before the names of what is on too often to stand there. */
  often: string
  oftenBehind: (count: number) => string
  times: (count: number) => string
  /** What stands on the second sheet. */
  calendars: string
}

interface WallSheetProps {
  name: string
  /** What it is narrowed to, whose it is, as of when. */
  about: string
  year: YearSheet
  entries: WallEntry[]
  calendars: { plate: string; name: string; colour: string }[]
  paper: Paper
  locale: string
  words: WallWords
}

/** More lines than these have no room on a day. */
const linesOn: Record<Paper, number> = { a3: 3, a4: 2 }
/** More of them go onto the second sheet. */
const MOST_IN_FOOT = { calendars: 16, often: 14 }

/** A year on one sheet of paper: its months beside each other, and what there was no room for on a second one. */
export function WallSheet({ name, about, year, entries, calendars, paper, locale, words }: WallSheetProps) {
  const wall = wallOf(year, entries, linesOn[paper])
  const used = calendars.filter(({ plate }) => entries.some((entry) => entry.plates.some(({ code }) => code === plate)))
  const hasLegend = used.length <= MOST_IN_FOOT.calendars
  const hasOften = year.often.length <= MOST_IN_FOOT.often
  return (
    <div className={`wall wall-${paper}`}>
      <article className="wall-sheet" aria-label={name}>
        <header className="wall-head">
          <h1>{name}</h1>
          <p>{about}</p>
        </header>
        <div className="wall-months">
          {wall.months.map((days, index) => (
            <section key={days[0]?.day} className={`wall-month has-${wall.lanes[index] ?? 0}-lanes`}>
              <h2>{sayDay(days[0]?.day ?? year.from, locale, { month: 'long', year: '2-digit' })}</h2>
              <ol>
                {days.map((day) => (
                  <Day key={day.day} day={day} locale={locale} lines={linesOn[paper]} withTimes={paper === 'a3'} words={words} />
                ))}
              </ol>
            </section>
          ))}
        </div>
        <footer className="wall-foot">
          {hasLegend && <Legend calendars={used} />}
          {year.often.length > 0 && (
            <p>
              {hasOften
                ? `${words.often} ${year.often.map((one) => `${one.title} (${words.times(one.dates)})`).join(', ')}`
                : words.oftenBehind(year.often.length)}
            </p>
          )}
        </footer>
      </article>
      <Second
        wall={wall}
        often={hasOften ? [] : year.often}
        calendars={hasLegend ? [] : used}
        colours={calendars}
        locale={locale}
        words={words}
      />
    </div>
  )
}

interface DayProps {
  day: WallDay
  locale: string
  lines: number
  withTimes: boolean
  words: WallWords
}

function Day({ day, locale, lines, withTimes, words }: DayProps) {
  const classes = ['wall-day', day.isWeekend && 'is-weekend', day.isClosed && 'is-closed', day.isInTerm && 'is-in-term']
  // Fewer lines have more room each.
  const rows = Math.max(1, Math.floor(lines / Math.max(1, day.lines.length + (day.more > 0 ? 1 : 0))))
  return (
    <li className={classes.filter(Boolean).join(' ')}>
      <span className="wall-number">{Number(day.day.slice(8))}</span>
      <span className="wall-weekday">{sayDay(day.day, locale, { weekday: 'narrow' })}</span>
      {day.bands.map((entry, lane) => (
        <i key={lane} className={bandClasses(entry, day.day)} />
      ))}
      <span className={`wall-lines rows-${rows}`}>
        {day.lines.map((line) => (
          <Line key={keyOf(line)} line={line} withTimes={withTimes} />
        ))}
        {day.more > 0 && <span className="wall-more">{words.more(day.more)}</span>}
      </span>
      {day.week !== null && <span className="wall-week">{day.week}</span>}
    </li>
  )
}

function bandClasses(entry: WallEntry | null, day: Day): string {
  if (!entry) return 'wall-band'
  return ['wall-band', 'band', `hue-${entry.colour}`, entry.first === day && 'begins', entry.last === day && 'ends']
    .filter(Boolean)
    .join(' ')
}

const keyOf = (line: WallLine) =>
  'entry' in line ? line.entry.id : 'term' in line ? `term ${line.term}` : `break ${line.closed}`

function Line({ line, withTimes }: { line: WallLine; withTimes: boolean }) {
  if ('term' in line) return <span className="wall-term">{line.term}</span>
  if ('closed' in line) return <span className="wall-closed">{line.closed}</span>
  const { entry } = line
  return (
    <span className={entryClasses('wall-line', entry)} dir="auto">
      {entry.plates.slice(0, 2).map(({ code, colour }) => (
        <Plate key={code} code={code} colour={colour} size="small" />
      ))}
      {entry.plates.length > 2 && `+${entry.plates.length - 2} `}
      {withTimes && entry.time !== '' && <span className="wall-time">{entry.time} </span>}
      <span className="wall-title">{entry.title}</span>
    </span>
  )
}

function entryClasses(name: string, entry: WallEntry): string {
  const { isCancelled, isDraft, isDue, isUncertain } = entry
  return [name, isCancelled && 'is-cancelled', isDraft && 'is-draft', isDue && 'due', isUncertain && 'torn']
    .filter(Boolean)
    .join(' ')
}

function Legend({ calendars }: { calendars: WallSheetProps['calendars'] }) {
  return (
    <ul className="wall-legend">
      {calendars.map(({ plate, name, colour }) => (
        <li key={plate}>
          <Plate code={plate} colour={colour} size="small" /> {name}
        </li>
      ))}
    </ul>
  )
}

interface SecondProps {
  wall: Wall
  often: YearSheet['often']
  calendars: WallSheetProps['calendars']
  colours: WallSheetProps['calendars']
  locale: string
  words: WallWords
}

/** The second sheet, if there is anything for it. */
function Second({ wall, often, calendars, colours, locale, words }: SecondProps) {
  if (wall.full.length === 0 && often.length === 0 && calendars.length === 0) return null
  const colourOf = (plate: string) => colours.find((one) => one.plate === plate)?.colour ?? 'slate'
  return (
    <article className="wall-second">
      {calendars.length > 0 && (
        <section>
          <h2>{words.calendars}</h2>
          <Legend calendars={calendars} />
        </section>
      )}
      {wall.full.length > 0 && (
        <section>
          <h2>{words.fullDays}</h2>
          <dl>
            {wall.full.map(({ day, entries }) => (
              <div key={day}>
                <dt>{sayDay(day, locale, { weekday: 'short', day: 'numeric', month: 'long' })}</dt>
                {entries.map((entry) => (
                  <dd key={entry.id} className={entryClasses('wall-line', entry)} dir="auto">
                    {entry.plates.map(({ code, colour }) => (
                      <Plate key={code} code={code} colour={colour} size="small" />
                    ))}{' '}
                    {entry.time} {entry.title}
                  </dd>
                ))}
              </div>
            ))}
          </dl>
        </section>
      )}
      {often.length > 0 && (
        <section>
          <h2>{words.often}</h2>
          <ul className="wall-often">
            {often.map((one) => (
              <li key={one.id}>
                {one.plates.map((plate) => (
                  <Plate key={plate} code={plate} colour={colourOf(plate)} size="small" />
                ))}{' '}
                {one.title} <span className="soft">({words.times(one.dates)})</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </article>
  )
}
