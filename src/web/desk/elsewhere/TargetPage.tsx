import { Link, useParams } from 'react-router'
import { NothingHere } from '../NothingHere'
import type { Target } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { useTarget } from './queries'
import { Standing } from './TargetList'
import { TargetOpenList } from './TargetOpenList'
import { TargetSettings } from './TargetSettings'
import { t } from './words'

/** A calendar elsewhere that is written: whether it stands there as it is here, what somebody changed there, what is written. */
export function TargetPage() {
  const { id = '' } = useParams()
  const target = useTarget(id)
  if (target.error) return <NothingHere detail={target.error.message} />
  if (!target.data) return <p className="page">{t('opening')}</p>
  return <TargetSeen target={target.data} />
}

function TargetSeen({ target }: { target: Target }) {
  const write = useWrite()
  const attempt = useAttempt()
  return (
    <main className="page intake intake-file source-page">
      <p className="soft">
        <Link to={target.calendarId ? `/calendars/${target.calendarId}/publishing` : `/editions/${target.editionId}`}>
          {target.editionName}
        </Link>
      </p>
      <div className="page-head">
        <h1>{target.name}</h1>
        <span className="soft">
          {t('aCalendarElsewhere')} · <Standing target={target} />
        </span>
        <span className="stretch" />
        <button
          type="button"
          className="btn btn-outline-ink"
          disabled={target.isBusy}
          onClick={() => void attempt(() => write('POST', `/targets/${target.id}/push`))}
        >
          {target.isBusy ? t('isWritten') : t('lookNow')}
        </button>
      </div>
      {target.health === 'failing' && (
        <p className="notice" role="status">
          {target.problem} {t('itIsTriedAgain', { count: target.failures })}
        </p>
      )}
      <div className="intake-halves">
        <section className="intake-questions">
          <h2>{t('howItStands')}</h2>
          <dl className="source-facts">
            <dt>{t('there')}</dt>
            <dd className="source-address">{target.shown}</dd>
            <dt>{t('whatIsWritten')}</dt>
            <dd>
              {target.editionName}, {target.takes === 'all' ? t('allOfIt') : t('soManyChosen', { count: target.chosen })}
            </dd>
            <dt>{t('stands')}</dt>
            <dd>{t('events', { count: target.there })}</dd>
            <dt>{t('setUpBy')}</dt>
            <dd>{t('hearsOfIt', { name: target.setUpBy })}</dd>
          </dl>
          <TargetSettings key={target.version} target={target} />
        </section>
        <section className="intake-becomes" aria-labelledby="asked">
          <h2 id="asked">{t('whatWasChangedThere')}</h2>
          <TargetOpenList target={target} />
        </section>
      </div>
    </main>
  )
}
