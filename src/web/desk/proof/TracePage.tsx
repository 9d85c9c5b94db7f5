import { Link, useParams, useSearchParams } from 'react-router'
import { NothingHere } from '../NothingHere'
import type { Trace } from '../types'
import { useWhere } from './queries'
import { Verdicts } from './TraceBox'
import { audienceNames, t } from './words'

/** Where a date goes: each edition, yes or no, and the rule that decided. */
export function TracePage() {
  const { id = '' } = useParams()
  const [parameters] = useSearchParams()
  const where = useWhere(id, parameters.get('date'))
  if (where.error) return <NothingHere detail={where.error.message} />
  if (!where.data) return <p className="page">{t('opening')}</p>
  const { title, when, editions, recurrenceId } = where.data
  return (
    <main className="page trace-page">
      <p className="soft crumbs">
        <Link to={`/events/${id}?date=${recurrenceId}`}>{t('backToTheEvent')}</Link>
      </p>
      <div className="page-head">
        <h1>{t('whereDoesItGo')}</h1>
        <span className="soft">
          <b>{title}</b>, {when}
        </span>
      </div>
      <p className="soft">{t('whereAbout')}</p>
      {editions.length === 0 && <p className="empty">{t('noEditionOfYours')}</p>}
      <ul className="where-list">
        {[...editions]
          .sort((one, other) => Number(other.isIn) - Number(one.isIn))
          .map((one) => (
            <Where key={one.editionId} trace={one} />
          ))}
      </ul>
    </main>
  )
}

function Where({ trace }: { trace: Trace }) {
  const decided = trace.verdicts.at(-1)
  return (
    <li>
      <i className={trace.isIn ? 'where-mark is-in' : 'where-mark'} aria-hidden="true" />
      <div>
        <h2>
          <Link to={`/editions/${trace.editionId}/proof`}>{trace.edition}</Link>{' '}
          <span className="soft">{t('forAudience', { audience: audienceNames[trace.audience] })}</span>
        </h2>
        <p>
          <b>{t(trace.isIn ? 'goesThere' : 'doesNotGoThere')}</b>
          {decided && `: ${decided.said}`}
        </p>
        {trace.verdicts.length > 1 && (
          <details>
            <summary>{t('allRules')}</summary>
            <Verdicts trace={trace} />
          </details>
        )}
      </div>
    </li>
  )
}
