import { useState } from 'react'
import { Plate } from '../../shared/Plate'
import { Link } from 'react-router'
import { useCalendars } from '../calendars/queries'
import { fieldName } from '../event/fields'
import { language } from '../language'
import type { Calendar, IncomingState, Intake, IntakeLine } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { useIntakeLines } from './queries'
import { t } from './words'

const number = new Intl.NumberFormat(language)

/** What can be taken at all. */
const takeable: ReadonlySet<IncomingState> = new Set(['new', 'changed', 'there'])

interface IntakeLinesProps {
  intake: Intake
  state: IncomingState | null
  turn: string
  onState: (state: IncomingState | null) => void
}

/** Each event as it came, and what becomes of it. */
export function IntakeLines({ intake, state, turn, onState }: IntakeLinesProps) {
  const calendars = useCalendars().data ?? []
  const lines = useIntakeLines(intake.id, state, turn)
  const write = useWrite()
  const attempt = useAttempt()
  const shown = lines.data?.pages.flatMap((page) => page.lines) ?? []
  const isReady = intake.state === 'ready'
  const take = (isTaken: boolean, places: number[] | null) =>
    attempt(() =>
      write('PUT', `/intake/${intake.id}/lines`, { places, states: places || state === null ? null : [state], isTaken }),
    )
  const counted = intake.counts.filter((one) => takeable.has(one.state) && (state === null || one.state === state))
  const all = counted.reduce((sum, one) => sum + one.all, 0)
  const taken = counted.reduce((sum, one) => sum + one.taken, 0)
  return (
    <>
      <div className="intake-states" role="group" aria-label={t('show')}>
        <button type="button" aria-pressed={state === null} onClick={() => onState(null)}>
          {t('all')} <b>{number.format(intake.counts.reduce((sum, one) => sum + one.all, 0))}</b>
        </button>
        {intake.counts.map((one) => (
          <button key={one.state} type="button" aria-pressed={state === one.state} onClick={() => onState(one.state)}>
            {t(`incoming_${one.state}`)} <b>{number.format(one.all)}</b>
          </button>
        ))}
      </div>
      {all > 0 && (
        <label className="tick intake-all">
          <Tick isOn={taken === all} isPartly={taken > 0 && taken < all} isReady={isReady} onTick={(isOn) => take(isOn, null)} />{' '}
          {t('allOfThese', { count: all })}
        </label>
      )}
      {!lines.isPending && shown.length === 0 && <p className="empty">{t('nothingInIt')}</p>}
      <ul className="intake-lines">
        {shown.map((line) => (
          <Line
            key={line.place}
            line={line}
            calendar={calendars.find((one) => one.id === line.calendarId)}
            isReady={isReady}
            onTake={(isTaken) => take(isTaken, [line.place])}
          />
        ))}
      </ul>
      {lines.hasNextPage && (
        <button
          type="button"
          className="btn btn-outline-ink"
          disabled={lines.isFetchingNextPage}
          onClick={() => void lines.fetchNextPage()}
        >
          {t('showMore')}
        </button>
      )}
    </>
  )
}

interface LineProps {
  line: IntakeLine
  calendar: Calendar | undefined
  isReady: boolean
  onTake: (isTaken: boolean) => Promise<void>
}

interface TickProps {
  isOn: boolean
  isPartly?: boolean
  isReady: boolean
  label?: string
  onTick: (isOn: boolean) => Promise<void>
}

/** Ticked at once, and kept meanwhile. */
function Tick({ isOn, isPartly = false, isReady, label, onTick }: TickProps) {
  const [said, setSaid] = useState<boolean | null>(null)
  return (
    <input
      type="checkbox"
      aria-label={label}
      disabled={!isReady}
      checked={said ?? isOn}
      ref={(box) => {
        if (box) box.indeterminate = said === null && isPartly
      }}
      onChange={({ target }) => {
        setSaid(target.checked)
        void onTick(target.checked).finally(() => setSaid(null))
      }}
    />
  )
}

function Line({ line, calendar, isReady, onTake }: LineProps) {
  const title = line.title || t('withoutTitle')
  return (
    <li className={`intake-line is-${line.state}`}>
      <Tick label={t('takeEvent', { title })} isReady={isReady && takeable.has(line.state)} isOn={line.isTaken} onTick={onTake} />
      <div>
        <p className="intake-title">
          {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />}{' '}
          <b className={line.isCancelled ? 'is-cancelled' : undefined}>{title}</b>
          {line.isDeadline && <span>, {t('due')}</span>}
          {line.isCancelled && <span className="soft"> {t('cancelled')}</span>}
          {line.category !== '' && <span className="soft"> {line.category}</span>}
        </p>
        <p className="soft">{line.words || t('inLine', { line: line.line })}</p>
        {line.differences.map((one, index) => (
          <p key={index} className="intake-difference">
            {fieldName(one.field)}: {one.was !== '' && <del>{one.was}</del>} <ins>{one.is || t('nothing')}</ins>
          </p>
        ))}
        {line.remarks.map((remark) => (
          <p key={remark} className={line.state === 'refused' ? 'refusal' : 'intake-remark'}>
            {remark}
          </p>
        ))}
      </div>
      <span className="intake-state">
        {line.eventId && line.state !== 'refused' ? (
          <Link to={`/events/${line.eventId}`}>{t(`incoming_${line.state}`)}</Link>
        ) : (
          t(`incoming_${line.state}`)
        )}
      </span>
    </li>
  )
}
