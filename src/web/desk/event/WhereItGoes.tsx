import { Link } from 'react-router'
import type { Calendar, Destination, Destinations } from '../api'
import { audienceWords } from '../editions/EditionsPage'
import { Level } from '../Level'
import { isMore } from '../openness'

interface WhereItGoesProps {
  destinations: Destinations
  /** Nobody has the event yet. */
  isNew: boolean
  /** Its home and where it is placed. */
  shownOn: Calendar[]
}

/** The editions that deliver it, and those that it leaves. */
export function WhereItGoes({ destinations, isNew, shownOn }: WhereItGoesProps) {
  const { editions, unnamed, whenItGoesOut } = destinations
  const going = editions.filter((one) => one.detail !== 'nothing')
  const left = editions.filter((one) => one.detail === 'nothing')
  const inside = shownOn.filter((calendar) => calendar.disclosure.everyone === 'nothing' && !calendar.hasSecretLink)
  return (
    <section>
      <h2>Where it goes</h2>
      {going.length > 0 && (
        <>
          <p className="soft goes-head">
            {whenItGoesOut
              ? 'When it goes out, to the pages, embeds and feeds of'
              : 'Within seconds to the pages, embeds and feeds of'}
          </p>
          <ul className="goes-to">
            {going.map((one) => (
              <li key={`${one.id} ${one.audience}`}>
                <span>
                  <EditionName edition={one} /> <span className="soft">for {audienceWords[one.audience]}</span>
                </span>
                <Level detail={one.detail} />
                {!isNew && !whenItGoesOut && one.was === 'nothing' && <span className="newly"> newly</span>}
                {one.was !== 'nothing' && isMore(one.detail, one.was) && <span className="newly"> more than now</span>}
              </li>
            ))}
          </ul>
        </>
      )}
      {left.map((one) => (
        <p key={`${one.id} ${one.audience}`} className="remark">
          It leaves <EditionName edition={one} />, for {audienceWords[one.audience]}.
        </p>
      ))}
      {unnamed > 0 && (
        <p className="soft">
          {unnamed === 1 ? 'One more edition has it' : `${unnamed} more editions have it`}, which others keep.
        </p>
      )}
      {going.length + unnamed === 0 && inside.length < shownOn.length && (
        <p className="remark">It is in no edition: their windows or filters leave it out.</p>
      )}
      {inside.map((calendar) => (
        <p key={calendar.id}>
          It stays inside on {calendar.name}, which is open to nobody outside.{' '}
          {calendar.mayManage && <Link to="/calendars">Say who sees it</Link>}
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
