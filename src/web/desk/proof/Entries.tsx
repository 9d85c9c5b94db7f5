import { useState } from 'react'
import { addDays, monthOf, sayDay } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { useOrganisation } from '../session/queries'
import type { ChangedLine, Proof, ProofLine, ProofWeek } from '../types'
import { useChangedLines } from './queries'
import { LastChange } from './LastChange'
import { sayChange, time } from './changes'
import { TraceBox } from './TraceBox'
import { t } from './words'

interface EntriesProps {
  proof: Proof
  /** The day from which on entries are shown; empty for today. */
  from: string
  onFrom: (day: string) => void
}

/** How many entries there are in each week, and each of them as it is delivered. */
export function Entries({ proof, from, onFrom }: EntriesProps) {
  const { locale } = useOrganisation()
  const [asked, setAsked] = useState<ProofLine | null>(null)
  const changes = useChangedLines(proof.id)
  const changed = new Map(changes.map((one) => [`${one.eventId} ${one.recurrenceId}`, one]))
  const first = proof.lines[0]?.start.slice(0, 10)
  return (
    <>
      <h2>{t('entriesByWeek', { count: proof.entries })}</h2>
      <Ribbon weeks={proof.weeks} from={from} onFrom={onFrom} />
      <LastChange changes={changes} />
      {from && (
        <p className="proof-from">
          {t('entriesFrom', { day: sayDay(from, locale, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }) })}{' '}
          <button type="button" className="as-link" onClick={() => onFrom('')}>
            {t('theNextOnes')}
          </button>
        </p>
      )}
      {!first && <p className="empty">{t('noEntriesFromHere')}</p>}
      <ol className="proof-lines">
        {proof.lines.map((line, index) => (
          <Line
            key={`${line.eventId} ${line.recurrenceId} ${index}`}
            line={line}
            change={changed.get(`${line.eventId} ${line.recurrenceId}`)}
            isFirstOfDay={line.start.slice(0, 10) !== proof.lines[index - 1]?.start.slice(0, 10)}
            isAsked={asked === line}
            onAsk={() => setAsked(asked === line ? null : line)}
            proof={proof}
          />
        ))}
      </ol>
      {proof.more > 0 && <p className="soft">{t('moreLater', { count: proof.more })}</p>}
    </>
  )
}

interface RibbonProps {
  weeks: ProofWeek[]
  from: string
  onFrom: (day: string) => void
}

/** A bar a week, as high as it is full; below, months that are pressed to go there. */
function Ribbon({ weeks, from, onFrom }: RibbonProps) {
  const { locale } = useOrganisation()
  const most = Math.max(1, ...weeks.map((week) => week.entries))
  return (
    <div className="proof-ribbon" role="group" aria-label={t('monthsOfTheYear')}>
      {monthsOf(weeks).map(({ month, own }) => {
        const count = own.reduce((sum, week) => sum + week.entries, 0)
        const said = [
          t('inMonth', { count, month: sayDay(`${month}-01`, locale, { month: 'long', year: 'numeric' }) }),
          own.some((week) => week.isBreak) && t('aBreak'),
          own.some((week) => week.isHeavy) && t('tooMuch'),
        ]
        return (
          <button
            key={month}
            type="button"
            className="proof-month"
            style={{ flexGrow: own.length }}
            aria-pressed={from !== '' && monthOf(from) === month}
            onClick={() => onFrom(`${month}-01`)}
          >
            <svg viewBox={`0 0 ${own.length * 10} 50`} preserveAspectRatio="none" aria-hidden="true">
              {own.map((week, place) => (
                <Bar key={week.first} week={week} place={place} most={most} />
              ))}
            </svg>
            <span aria-hidden="true">{sayDay(`${month}-01`, locale, { month: 'short' })}</span>
            <span className="visually-hidden">{said.filter(Boolean).join(', ')}</span>
          </button>
        )
      })}
    </div>
  )
}

/** Fewer are no room to press: they stand with their neighbour. */
const FEWEST_WEEKS = 3

/** Each week with the month of which it has the most days. */
function monthsOf(weeks: ProofWeek[]): { month: string; own: ProofWeek[] }[] {
  const months: { month: string; own: ProofWeek[] }[] = []
  for (const week of weeks) {
    const month = monthOf(addDays(week.first, 3))
    const last = months.at(-1)
    const isNext = !last || last.month !== month
    // The first may have begun long ago, the last is only begun.
    const left = weeks.filter((one) => monthOf(addDays(one.first, 3)) === month).length
    if (!isNext) last.own.push(week)
    else if (last && last.own.length < FEWEST_WEEKS) Object.assign(last, { month, own: [...last.own, week] })
    else if (last && left < FEWEST_WEEKS) last.own.push(week)
    else months.push({ month, own: [week] })
  }
  return months
}

function Bar({ week, place, most }: { week: ProofWeek; place: number; most: number }) {
  const height = (50 * week.entries) / most
  return (
    <g className={week.isHeavy ? 'is-heavy' : ''}>
      {week.isBreak && <rect className="week-break" x={place * 10 + 0.8} width="8.4" height="50" />}
      <rect className="week-load" x={place * 10 + 0.8} y={50 - height} width="8.4" height={height} />
    </g>
  )
}

interface LineProps {
  line: ProofLine
  change: ChangedLine | undefined
  isFirstOfDay: boolean
  isAsked: boolean
  onAsk: () => void
  proof: Proof
}

function Line({ line, change, isFirstOfDay, isAsked, onAsk, proof }: LineProps) {
  const { locale } = useOrganisation()
  const day = line.start.slice(0, 10)
  const times = line.allDay ? t('wholeDay') : line.start === line.end ? time(line.start) : `${time(line.start)}–${time(line.end)}`
  return (
    <li className={`proof-line change-${change?.change ?? 'none'} ${line.state === 'cancelled' ? 'is-cancelled' : ''}`}>
      <span className="line-day">
        {isFirstOfDay && sayDay(day, locale, { weekday: 'short', day: 'numeric', month: 'short' })}
      </span>
      <span className="line-time">{times}</span>
      <span className="line-what">
        {line.sources.map((source) => (
          <Plate key={source.plate} code={source.plate} colour={source.colour} size="small" />
        ))}{' '}
        <b>{line.title}</b> {line.lookAlikes > 0 && <span className="soft">{t('merged', { count: line.lookAlikes })}</span>}
      </span>
      <span className="line-why">
        {change && <em>{sayChange(line, change, locale)}</em>}{' '}
        {line.eventId && (
          <button type="button" className="as-link" aria-expanded={isAsked} onClick={onAsk}>
            {t('why')}
            <span className="visually-hidden">: {line.title}</span>
          </button>
        )}
      </span>
      {isAsked && line.eventId && (
        <TraceBox proof={proof} eventId={line.eventId} date={line.recurrenceId} title={line.title} onClose={onAsk} />
      )}
    </li>
  )
}
