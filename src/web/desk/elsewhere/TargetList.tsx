import { Link } from 'react-router'
import { useOrganisation } from '../session/queries'
import type { TargetListed } from '../types'
import { saySince } from '../work/failures'
import { useTargets } from './queries'
import { t } from './words'

/** The calendars elsewhere that an edition is written into, with the way to one more; of all editions where none is said. */
export function TargetList({ editionId }: { editionId?: string }) {
  const targets = useTargets()
  const shown = (targets.data ?? []).filter((one) => !editionId || one.editionId === editionId)
  if (!editionId && shown.length === 0) return null
  return (
    <section aria-labelledby="elsewhere" className={editionId ? 'elsewhere' : 'standard-editions'}>
      <h2 id="elsewhere">{t('elsewhere')}</h2>
      <p className="soft">{t('whatIsElsewhere')}</p>
      {targets.error && (
        <p className="notice" role="alert">
          {targets.error.message}
        </p>
      )}
      {shown.length > 0 && (
        <table className="plain-table as-cards">
          <thead>
            <tr>
              <th scope="col">{t('calendarThere')}</th>
              {!editionId && <th scope="col">{t('whatIsWritten')}</th>}
              <th scope="col">{t('howItStands')}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((one) => (
              <tr key={one.id}>
                <td data-label={t('calendarThere')}>
                  <div>
                    <Link to={`/elsewhere/${one.id}`}>{one.name}</Link>
                    <br />
                    <span className="soft source-address">{one.shown}</span>
                  </div>
                </td>
                {!editionId && <td data-label={t('whatIsWritten')}>{one.editionName}</td>}
                <td data-label={t('howItStands')}>
                  <Standing target={one} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {editionId && (
        <Link className="btn btn-outline-ink" to={`/elsewhere/new?edition=${editionId}`}>
          {t('writeOneMore')}
        </Link>
      )}
    </section>
  )
}

type Said = Pick<
  TargetListed,
  'health' | 'rightAt' | 'failedSince' | 'problem' | 'there' | 'asking' | 'isBusy' | 'done' | 'total'
>

/** Whether it stands there as it is here, as a shape and in words. */
export function Standing({ target }: { target: Said }) {
  const organisation = useOrganisation()
  const right = target.rightAt
    ? t('rightAsOf', { count: target.there, time: saySince(target.rightAt, organisation) })
    : t('neverWritten')
  const words = {
    new: target.isBusy ? t('isWritten') : t('neverWritten'),
    right,
    asks: t('asks', { count: target.asking }),
    failing: target.failedSince ? t('failsSince', { time: saySince(target.failedSince, organisation) }) : right,
    leaving: t('isTakenAway'),
  }
  return (
    <span className="source-health">
      <i className={`source-mark is-${target.health === 'asks' ? 'held' : target.health}`} aria-hidden="true" />{' '}
      {words[target.health]}
      {target.total !== null && <> {t('soManyOf', { done: target.done ?? 0, total: target.total })}</>}
      {target.health === 'failing' && <span className="source-problem">{target.problem}</span>}
    </span>
  )
}
