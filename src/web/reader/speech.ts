import { addDays, daysBetween, placeOfZone, sayDay, type Day } from '../shared/days'
import { dateFormat } from '../shared/formats'
import { firstDay, lastDay, timeOf, type Timed } from '../shared/slips'
import ar from '../../words/ar/reader.json'
import de from '../../words/de/reader.json'
import en from '../../words/en/reader.json'
import fr from '../../words/fr/reader.json'
import { linkName } from '../shared/links'
import { fill } from '../shared/words'
import type { Edition, Entry } from './edition'

export type Words = typeof en

const languages: Record<string, Words> = { ar, de, en, fr }

const dateStyles: Record<Edition['look']['dates'], Intl.DateTimeFormatOptions> = {
  long: { weekday: 'long', day: 'numeric', month: 'long' },
  short: { weekday: 'short', day: 'numeric', month: 'short' },
  numeric: { weekday: 'short', day: '2-digit', month: '2-digit', year: 'numeric' },
}

/** How a page talks: in the language that its edition says, else in the reader's, else in the organisation's. */
export class Speech {
  readonly language: string
  /** How dates and numbers are written: the reader's own way where it is their language. */
  readonly locale: string
  readonly words: Words
  readonly isRightToLeft: boolean
  private readonly clock: Intl.DateTimeFormat
  private readonly dates: Intl.DateTimeFormatOptions

  constructor(edition: Edition, readers: readonly string[]) {
    const base = (locale: string) => locale.split('-')[0] ?? 'en'
    const wanted = [edition.look.language, ...(edition.look.language ? [] : readers), edition.locale, 'en'].filter(Boolean)
    const chosen = wanted.find((locale) => base(locale) in languages) ?? 'en'
    this.language = base(chosen)
    // A reader of whom no more than the language is known writes as the organisation does.
    const ways = [...readers.filter((locale) => locale.includes('-')), edition.locale, ...readers]
    this.locale = ways.find((locale) => base(locale) === this.language) ?? this.language
    this.words = languages[this.language] ?? en
    this.isRightToLeft = this.language === 'ar'
    const hour12 = { reader: undefined, twelve: true, twentyFour: false }[edition.look.clock]
    this.clock = dateFormat(this.locale, {
      hour: edition.look.clock === 'twentyFour' ? '2-digit' : 'numeric',
      minute: '2-digit',
      timeZone: 'UTC',
      ...(hour12 === undefined ? {} : { hour12 }),
    })
    this.dates = dateStyles[edition.look.dates]
  }

  /** Words with something put into them: fill('more', { count: 3 }). */
  fill(name: keyof Words, values: Record<string, string | number>): string {
    return fill(this.words[name], values, this.locale)
  }

  /** "14:00" or "2:00 PM" of a moment's local time. */
  time(moment: string): string {
    return this.clock.format(new Date(`1970-01-01T${timeOf(moment)}:00Z`))
  }

  /** A day as the edition writes dates. */
  day(day: Day): string {
    return sayDay(day, this.locale, this.dates)
  }

  longDay(day: Day): string {
    return sayDay(day, this.locale, { weekday: 'long', day: 'numeric', month: 'long' })
  }

  format(day: Day, options: Intl.DateTimeFormatOptions): string {
    return sayDay(day, this.locale, options)
  }

  /** "Today", "Tomorrow", else the weekday. */
  dayName(day: Day, today: Day): string {
    if (day === today) return this.words.today
    if (day === addDays(today, 1)) return this.words.tomorrow
    return sayDay(day, this.locale, { weekday: this.dates.weekday })
  }

  /**
   * "14:00–15:30", "all day"; on the days of what lasts for days, where it has got to.
   * Where it stands on its first day only, until when it lasts.
   */
  span(entry: Timed, day: Day = firstDay(entry), severalDays: Edition['look']['severalDays'] = 'each'): string {
    const [first, last] = [firstDay(entry), lastDay(entry)]
    if (entry.kind === 'deadline') return entry.allDay ? this.words.due : this.fill('dueAt', { when: this.time(entry.start) })
    if (severalDays === 'first' && first !== last)
      return [
        entry.allDay || day !== first ? '' : `${this.time(entry.start)}, `,
        `${this.words.until} ${this.day(entry.allDay ? last : entry.end.slice(0, 10))}`,
        entry.allDay ? '' : ` ${this.time(entry.end)}`,
      ].join('')
    if (entry.allDay) return first === last ? this.words.allDay : `${daysBetween(first, day) + 1}/${daysBetween(first, last) + 1}`
    if (day !== first) return day === last ? `${this.words.until} ${this.time(entry.end)}` : this.words.allDay
    if (entry.start === entry.end) return this.time(entry.start)
    return first === last ? `${this.time(entry.start)}–${this.time(entry.end)}` : `${this.time(entry.start)} …`
  }

  /** Where there is room for no more than a start. */
  short(entry: Timed, day: Day): string {
    if (entry.allDay) return ''
    return day === firstDay(entry) ? this.time(entry.start) : '…'
  }

  /** The whole span in words. */
  when(entry: Timed): string {
    const say = (day: Day) => sayDay(day, this.locale, { ...this.dates, weekday: 'long', year: 'numeric' })
    const [first, last] = [firstDay(entry), lastDay(entry)]
    if (entry.kind === 'deadline')
      return this.fill('dueAt', { when: entry.allDay ? say(first) : `${say(first)}, ${this.time(entry.start)}` })
    if (entry.allDay) return first === last ? `${say(first)}, ${this.words.allDay}` : `${say(first)} – ${say(last)}`
    if (entry.start === entry.end) return `${say(first)}, ${this.time(entry.start)}`
    return first === entry.end.slice(0, 10)
      ? `${say(first)}, ${this.time(entry.start)}–${this.time(entry.end)}`
      : `${say(first)}, ${this.time(entry.start)} – ${say(entry.end.slice(0, 10))}, ${this.time(entry.end)}`
  }

  linkName(link: Entry['links'][number]): string {
    const { linkSignUp: signUp, linkTickets: tickets, linkMap: map, linkVideoCall: videoCall } = this.words
    return linkName(link, { signUp, tickets, map, videoCall })
  }

  /** A line for each part that people have. */
  people({ people }: Entry): string[] {
    const names = { leads: this.words.partLeads, helps: this.words.partHelps, speaks: this.words.partSpeaks }
    const said = ({ name, from, to }: Entry['people'][number]) =>
      from || to ? `${name} (${from ? this.time(`1970-01-01T${from}`) : ''}–${to ? this.time(`1970-01-01T${to}`) : ''})` : name
    return (Object.keys(names) as (keyof typeof names)[])
      .map((part) => ({ part, those: people.filter((one) => one.part === part) }))
      .filter(({ those }) => those.length > 0)
      .map(({ part, those }) => `${names[part]}: ${those.map(said).join(', ')}`)
  }

  /** The same on the reader's own clock; null where it shows the same. */
  ownTime(entry: Timed, readersZone: string): string | null {
    if (entry.allDay) return null
    const local = (moment: string) => {
      const parts = dateFormat('en', {
        timeZone: readersZone,
        year: 'numeric',
        month: '2-digit',
        day: '2-digit',
        hour: '2-digit',
        minute: '2-digit',
        hourCycle: 'h23',
      }).formatToParts(new Date(moment))
      const part = (type: string) => parts.find((one) => one.type === type)?.value ?? ''
      return `${part('year')}-${part('month')}-${part('day')}T${part('hour')}:${part('minute')}`
    }
    const [start, end] = [local(entry.start), local(entry.end)]
    if (start === entry.start.slice(0, 16)) return null
    const moved =
      start.slice(0, 10) === firstDay(entry)
        ? ''
        : `${sayDay(start.slice(0, 10), this.locale, { weekday: 'short', day: 'numeric' })} `
    return `${moved}${this.time(start)}${start === end ? '' : `–${this.time(end)}`}`
  }

  /** An instant on the reader's own clock. */
  moment(instant: string): string {
    const format = { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' } as const
    return dateFormat(this.locale, format).format(new Date(instant))
  }

  /** "23 – 29 November 2026", as the language writes a stretch of days. */
  stretch(first: Day, last: Day): string {
    const format = dateFormat(this.locale, { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })
    return format.formatRange(new Date(`${first}T00:00:00Z`), new Date(`${last}T00:00:00Z`))
  }

  zone(edition: Edition): string {
    return this.fill('zone', { place: placeOfZone(edition.zone) })
  }
}
