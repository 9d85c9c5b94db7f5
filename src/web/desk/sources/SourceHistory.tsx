import { sayDay } from '../../shared/days'
import { useOrganisation } from '../session/queries'
import type { FollowedSource, SourceFetch } from '../types'
import { saySince } from '../work/failures'
import { sayBytes, sayRhythm } from './rhythm'
import { t } from './words'

type Day = FollowedSource['days'][number]

const WEEK = 7

/** Where it is, how often it is asked, and how that went. */
export function SourceHistory({ source }: { source: FollowedSource }) {
  const organisation = useOrganisation()
  const changes = source.days.slice(-WEEK).reduce((sum, day) => sum + day.changed, 0)
  return (
    <>
      <dl className="source-facts">
        <dt>{t('address')}</dt>
        <dd className="source-address">
          {source.shown}
          {source.hasSecrets && <span className="soft"> · {t('withAPassword')}</span>}
        </dd>
        <dt>{t('fetched')}</dt>
        <dd>
          {sayRhythm(source.everyMinutes)}
          {source.bytes > 0 && <>; {sayBytes(source.bytes)}</>}
          {source.rightAt && <>, {changes === 0 ? t('notChangedThisWeek') : t('changedThisWeek', { count: changes })}</>}
          <span className="soft"> · {t('inTheNameOf', { name: source.follower })}</span>
        </dd>
        {source.problem !== '' && (
          <>
            <dt>{t('fails')}</dt>
            <dd className="source-problem">
              {t('failedTimes', { count: source.failures })} {source.problem}{' '}
              {t('triedAgainAt', { time: saySince(source.dueAt, organisation) })}
            </dd>
          </>
        )}
        <dt>{t('lastThirtyDays')}</dt>
        <dd>
          <Bars days={source.days} />
        </dd>
      </dl>
      {source.fetches.length > 0 && (
        <details className="source-fetches">
          <summary>{t('howItWent')}</summary>
          <ul>
            {source.fetches.map((fetch) => (
              <li key={fetch.at}>
                <span className="soft">{saySince(fetch.at, organisation)}</span> {sayFetch(fetch)}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

export function sayFetch(fetch: SourceFetch): string {
  if (fetch.outcome === 'failed') return fetch.news.join(' ')
  if (fetch.outcome === 'held') return t('heldBack')
  const counts = [
    fetch.made > 0 && t('newOnes', { count: fetch.made }),
    fetch.changed > 0 && t('changedOnes', { count: fetch.changed }),
    fetch.removed > 0 && t('goneOnes', { count: fetch.removed }),
  ].filter((one) => one !== false)
  const said = counts.length > 0 ? counts.join(', ') : t('nothingElse')
  const news = fetch.news.length > 0 ? ` (${fetch.news.join('; ')})` : ''
  return `${fetch.outcome === 'ruled' ? `${t('otherRules')}: ` : ''}${said}${news}`
}

const kindOf = (day: Day) =>
  day.failed > 0 ? 'failed' : day.held > 0 ? 'held' : day.changed > 0 ? 'changed' : day.same > 0 ? 'same' : 'none'

/** A bar a day: tall where it changed, low where it said the same, red where it failed. */
function Bars({ days }: { days: Day[] }) {
  const { locale } = useOrganisation()
  const say = (day: Day) =>
    `${sayDay(day.day, locale, { day: 'numeric', month: 'long' })}: ${t(`day_${kindOf(day)}`, { count: day.failed > 0 ? day.failed : day.changed })}`
  const odd = days.filter((day) => day.failed > 0 || day.held > 0)
  const changed = days.filter((day) => day.changed > 0).length
  return (
    <>
      <span className="source-bars" role="img" aria-label={t('barsInWords', { changed, failed: odd.length })}>
        {days.map((day) => (
          <i key={day.day} className={`is-${kindOf(day)}`} title={say(day)} />
        ))}
      </span>
      <span className="soft">{odd.length > 0 ? say(odd[odd.length - 1] as Day) : t('noFailures')}</span>
    </>
  )
}
