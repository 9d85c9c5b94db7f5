import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import { useCalendars, useFillableCalendars } from '../calendars/queries'
import type { Calendar, FollowedSource, Landing, SourceEntry, SourcePreview, SourceRules } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { sayFetch } from './SourceHistory'
import { t } from './words'

interface SourceEntriesProps {
  source: FollowedSource
  rules: SourceRules
  preview: SourcePreview
  isChanged: boolean
}

/** Each entry as it came, what becomes of it, and by which rule. */
export function SourceEntries({ source, rules, preview, isChanged }: SourceEntriesProps) {
  const last = source.fetches.find((fetch) => fetch.outcome === 'changed')
  const more = preview.total - preview.entries.length
  return (
    <>
      <table className="plain-table as-cards source-entries">
        <thead>
          <tr>
            <th scope="col">{t('cameAs')}</th>
            <th scope="col">{t('becomes')}</th>
            <th scope="col">{t('rule')}</th>
          </tr>
        </thead>
        <tbody>
          {preview.entries.map((entry) => (
            <Entry key={entry.uid} source={source} rules={rules} entry={entry} isChanged={isChanged} />
          ))}
        </tbody>
      </table>
      {more > 0 && <p className="soft">{t('andMore', { count: more })}</p>}
      {isChanged ? (
        <p role="status">
          {t('savingWould', {
            made: t('newOnes', { count: preview.made }),
            changed: t('changedOnes', { count: preview.changed }),
            removed: preview.removed === 0 ? t('noneGone') : t('goneOnes', { count: preview.removed }),
          })}
        </p>
      ) : (
        last && (
          <>
            <h2>{t('sinceTheLastFetch')}</h2>
            <p>
              {sayFetch(last)}. <span className="soft">{t('heldWhenHalf')}</span>
            </p>
          </>
        )
      )}
    </>
  )
}

interface EntryProps {
  source: FollowedSource
  rules: SourceRules
  entry: SourceEntry
  isChanged: boolean
}

function Entry({ source, rules, entry, isChanged }: EntryProps) {
  return (
    <tr className={`is-${entry.state}`}>
      <td data-label={t('cameAs')}>
        <div>
          <b>{entry.came}</b>
          <br />
          <span className="soft">{entry.words}</span>
          {entry.remarks.map((remark) => (
            <p key={remark} className="intake-remark">
              {remark}
            </p>
          ))}
        </div>
      </td>
      <td data-label={t('becomes')}>
        <div>
          <Becomes source={source} rules={rules} entry={entry} isChanged={isChanged} />
        </div>
      </td>
      <td className="soft" data-label={t('rule')}>
        {entry.state === 'asks'
          ? t('asks')
          : entry.isByHand
            ? t('byHand')
            : entry.rule === null
              ? '·'
              : t('ruleNumber', { number: entry.rule + 1 })}
      </td>
    </tr>
  )
}

function Becomes({ source, rules, entry, isChanged }: EntryProps) {
  const write = useWrite()
  const attempt = useAttempt()
  const calendars = useCalendars().data ?? []
  const calendar = calendars.find((one) => one.id === entry.calendarId)
  const choose = (landing: Landing | null) =>
    void attempt(() => write('PUT', `/sources/${source.id}/entries`, { uid: entry.uid, landing }))
  const undo = entry.isByHand && !isChanged && (
    <button type="button" className="as-link" onClick={() => choose(null)}>
      {t('asTheRulesSay')}
    </button>
  )
  switch (entry.state) {
    case 'asks':
      return isChanged ? t('itIsAsked') : <Ask calendars={calendars} rules={rules} entry={entry} onChoose={choose} />
    case 'leftOut':
      return (
        <>
          {t('leftOut')} {undo}
        </>
      )
    case 'refused':
      return t('cannotBeRead')
    case 'also':
      return (
        <>
          {t('theSameAs', { title: entry.alsoOf ?? '' })} {undo}
        </>
      )
    case 'hidden':
      return (
        <>
          {t('hiddenHere')}{' '}
          <button
            type="button"
            className="as-link"
            onClick={() =>
              void attempt(() => write('POST', `/sources/${source.id}/entries/shown`, { uid: entry.uid, landing: null }))
            }
          >
            {t('showAgain')}
          </button>
        </>
      )
    default:
      return (
        <>
          {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />}{' '}
          {entry.eventId ? <Link to={`/events/${entry.eventId}`}>{entry.title}</Link> : <b>{entry.title}</b>}
          {entry.isDeadline && `, ${t('due')}`}
          {entry.isCancelled && `, ${t('cancelled')}`}
          {entry.state === 'ours' && <span className="soft"> · {t('yourOwnSince')}</span>} {undo}
        </>
      )
  }
}

interface AskProps {
  calendars: Calendar[]
  rules: SourceRules
  entry: SourceEntry
  onChoose: (landing: Landing) => void
}

const MOST_BUTTONS = 4

/** The calendars that its rules name are a button each. */
function Ask({ calendars, rules, entry, onChoose }: AskProps) {
  const named = rules.rules.map((rule) => rule.landing).filter((landing) => landing.to === 'calendar')
  const landings = named.filter((one, place) => named.findIndex((other) => other.calendarId === one.calendarId) === place)
  const others = useFillableCalendars().filter((one) => landings.every((landing) => landing.calendarId !== one.id))
  return (
    <span className="source-ask">
      {landings.slice(0, MOST_BUTTONS).map((landing) => {
        const calendar = calendars.find((one) => one.id === landing.calendarId)
        if (!calendar) return null
        return (
          <button
            key={calendar.id}
            type="button"
            className="btn btn-outline-ink"
            aria-label={t('putOn', { title: entry.came, name: calendar.name })}
            onClick={() => onChoose({ to: 'calendar', calendarId: calendar.id, as: 'asItCame' })}
          >
            {calendar.plate}
          </button>
        )
      })}
      <select
        className="form-select"
        aria-label={t('elsewhere', { title: entry.came })}
        value=""
        onChange={(event) => onChoose({ to: 'calendar', calendarId: event.target.value, as: 'asItCame' })}
      >
        <option value="">{t(landings.length > 0 ? 'elsewhereShort' : 'onACalendar')}</option>
        {others.map((one) => (
          <option key={one.id} value={one.id}>
            {one.plate} {one.name}
          </option>
        ))}
      </select>
      <button
        type="button"
        className="btn btn-outline-ink"
        aria-label={t('leaveOutNamed', { title: entry.came })}
        onClick={() => onChoose({ to: 'leaveOut', calendarId: null, as: 'asItCame' })}
      >
        {t('leaveOut')}
      </button>
    </span>
  )
}
