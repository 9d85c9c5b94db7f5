import { Link } from 'react-router'
import type { Calendar, Destination, Destinations } from '../types'
import { audienceWords } from '../editions/EditionsPage'
import { Level } from '../Level'
import { isMore } from '../openness'
import { t } from './words'

interface WhereItGoesProps {
  destinations: Destinations
  /** Nobody has the event yet. */
  isNew: boolean
  /** Its home and where it is placed. */
  shownOn: Calendar[]
  /** Where each edition says why; null while nobody has the event. */
  traced: string | null
}

/** The editions that deliver it, and those that it leaves. */
export function WhereItGoes({ destinations, isNew, shownOn, traced }: WhereItGoesProps) {
  const { editions, unnamed, whenItGoesOut } = destinations
  const going = editions.filter((one) => one.detail !== 'nothing')
  const left = editions.filter((one) => one.detail === 'nothing')
  const inside = shownOn.filter((calendar) => calendar.disclosure.everyone === 'nothing' && !calendar.hasSecretLink)
  return (
    <section>
      <h2>{t('whereItGoes')}</h2>
      {going.length > 0 && (
        <>
          <p className="soft goes-head">{whenItGoesOut ? t('whenItGoesOutTo') : t('withinSecondsToThePages')}</p>
          <ul className="goes-to">
            {going.map((one) => (
              <li key={`${one.id} ${one.audience}`}>
                <span>
                  <EditionName edition={one} />{' '}
                  <span className="soft">
                    {[t('forAudience', { audience: audienceWords[one.audience] }), ...one.besides].join(', ')}
                  </span>
                </span>
                <Level detail={one.detail} />
                {!isNew && !whenItGoesOut && one.was === 'nothing' && <span className="newly"> {t('newly')}</span>}
                {one.was !== 'nothing' && isMore(one.detail, one.was) && <span className="newly"> {t('moreThanNow')}</span>}
              </li>
            ))}
          </ul>
        </>
      )}
      {left.map((one) => (
        <p key={`${one.id} ${one.audience}`} className="remark">
          {t('itLeaves')} <EditionName edition={one} />
          {t('commaForAudience', { audience: audienceWords[one.audience] })}
        </p>
      ))}
      {destinations.remarks.map((sentence) => (
        <p key={sentence} className="remark">
          {sentence}
        </p>
      ))}
      {traced && (
        <p>
          <Link to={traced}>{t('whereEachAndWhy')}</Link>
        </p>
      )}
      {unnamed > 0 && <p className="soft">{t('moreEditionsHaveIt', { count: unnamed })}</p>}
      {going.length + unnamed === 0 && inside.length < shownOn.length && <p className="remark">{t('itIsInNoEdition')}</p>}
      {inside.map((calendar) => (
        <p key={calendar.id}>
          {t('itStaysInsideOnName', { name: calendar.name })}{' '}
          {calendar.mayManage && <Link to="/calendars">{t('sayWhoSeesIt')}</Link>}
        </p>
      ))}
    </section>
  )
}

function EditionName({ edition }: { edition: Destination }) {
  if (!edition.mayEdit) return <b>{edition.name}</b>
  return (
    <Link to={edition.calendarId ? `/calendars/${edition.calendarId}/publishing` : `/editions/${edition.id}`}>
      {edition.name}
    </Link>
  )
}
