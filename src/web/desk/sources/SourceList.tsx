import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import { useCalendars } from '../calendars/queries'
import { useOrganisation } from '../session/queries'
import type { SourceListed } from '../types'
import { saySince } from '../work/failures'
import { useSources } from './queries'
import { t } from './words'

/** The addresses that are followed: which, where they land, and whether they are right. */
export function SourceList() {
  const sources = useSources()
  return (
    <section aria-labelledby="followed">
      <h2 id="followed">{t('followed')}</h2>
      <p className="soft">{t('whatIsFollowed')}</p>
      {sources.error && (
        <p className="notice" role="alert">
          {sources.error.message}
        </p>
      )}
      {sources.data && sources.data.length > 0 && (
        <table className="plain-table as-cards">
          <thead>
            <tr>
              <th scope="col">{t('source')}</th>
              <th scope="col">{t('goesOn')}</th>
              <th scope="col">{t('isRight')}</th>
            </tr>
          </thead>
          <tbody>
            {sources.data.map((one) => (
              <Followed key={one.id} source={one} />
            ))}
          </tbody>
        </table>
      )}
      <Link className="btn btn-outline-ink" to="/intake/follow">
        {t('followAnAddress')}
      </Link>
    </section>
  )
}

function Followed({ source }: { source: SourceListed }) {
  const calendars = useCalendars().data ?? []
  return (
    <tr>
      <td data-label={t('source')}>
        <div>
          <Link to={`/intake/sources/${source.id}`}>{source.name}</Link>
          <br />
          <span className="soft source-address">{source.shown}</span>
        </div>
      </td>
      <td data-label={t('goesOn')}>
        <div>
          {source.calendars.length === 0 && <span className="soft">{t('asksForEach')}</span>}
          {calendars
            .filter((one) => source.calendars.includes(one.id))
            .map((one) => (
              <span key={one.id} className="source-calendar">
                <Plate code={one.plate} colour={one.colour} size="small" /> {one.name}
              </span>
            ))}
        </div>
      </td>
      <td data-label={t('isRight')}>
        <Health source={source} />
      </td>
    </tr>
  )
}

/** Whether what stands here of it is what it says, as a shape and in words. */
export function Health({ source }: { source: Pick<SourceListed, 'health' | 'isBusy' | 'rightAt' | 'failedSince' | 'problem'> }) {
  const organisation = useOrganisation()
  const right = source.rightAt ? t('rightAsOf', { time: saySince(source.rightAt, organisation) }) : t('neverRight')
  const words = {
    new: source.isBusy ? t('isAsked') : t('neverRight'),
    right: right,
    held: `${right}; ${t('heldBack')}`,
    failing: source.failedSince ? `${right}; ${t('failsSince', { time: saySince(source.failedSince, organisation) })}` : right,
  }
  return (
    <span className="source-health">
      <i className={`source-mark is-${source.health}`} aria-hidden="true" /> {words[source.health]}
      {source.health === 'failing' && <span className="source-problem">{source.problem}</span>}
    </span>
  )
}
