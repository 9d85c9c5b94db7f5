import { useState } from 'react'
import { Link } from 'react-router'
import type { Opening } from '../types'
import { t } from './words'

const names = { editors: t('editors'), members: t('members'), link: t('thoseWithTheLink'), everyone: t('everyone') }

/** What a changed table reveals and takes away, before it is changed. */
export function WhatFollows({ openings }: { openings: Opening[] }) {
  return (
    <ul className="what-follows">
      {openings.map((opening) => (
        <li key={opening.audience}>
          <b>{headOf(opening)}</b>
          <ul>
            <Named counted={opening.withEmail} have="haveAnEMailAddress" />
            <Named counted={opening.withPhone} have="haveATelephoneNumber" />
            <Named counted={opening.withFile} have="haveFiles" />
            <Named counted={opening.withNames} have="haveNames" />
            {opening.drafts > 0 && opening.revealed > 0 && <li>{t('draftsAndWaitingEventsStay', { count: opening.drafts })}</li>}
            {opening.empties.map(({ what, programs }) => (
              <li key={what}>{t('theKindsWillHaveNothing', { kind: kinds[what] ?? what, programs: sayPrograms(programs) })}</li>
            ))}
            <Losing editions={opening.editions} />
          </ul>
        </li>
      ))}
    </ul>
  )
}

/** Editions that join the calendar with others. */
export function Losing({ editions }: { editions: Opening['editions'] }) {
  return editions.map((edition) => (
    <li key={edition.id}>
      {t.rich(
        edition.becomesEmpty ? 'theEditionWillBeEmpty' : 'theEditionWillBeWithoutIt',
        { name: edition.name, programs: sayPrograms(edition.programs) },
        <Link to={`/editions/${edition.id}`} />,
      )}
    </li>
  ))
}

export const kinds: Record<string, string> = { page: t('readingPage'), embed: t('embed'), feed: t('feed') }

export function sayPrograms(programs: number): string {
  if (programs === 0) return t('nobodyFetchedItInThe')
  return t('programsFetchedItInThe', { count: programs })
}

function headOf(opening: Opening): string {
  const whom = names[opening.audience]
  if (opening.revealed > 0) {
    const values = { count: opening.revealed, whom }
    if (opening.was !== 'nothing') return t('eventsBecomeMoreVisible', values)
    return opening.audience === 'everyone' ? t('eventsBecomePublic', values) : t('eventsBecomeVisible', values)
  }
  if (opening.hidden > 0) {
    return t(opening.becomes === 'nothing' ? 'eventsOutOfSight' : 'eventsLessVisible', { count: opening.hidden, whom })
  }
  if (opening.withNames.count > 0) return t('eventsTellNames', { count: opening.withNames.count, whom })
  return t('noEventChangesForWhom', { whom })
}

interface NamedProps {
  counted: Opening['withEmail']
  have: 'haveAnEMailAddress' | 'haveATelephoneNumber' | 'haveFiles' | 'haveNames'
}

/** How many, with their titles when somebody wants to look at them. */
function Named({ counted, have }: NamedProps) {
  const [isOpen, setOpen] = useState(false)
  if (counted.count === 0) return null
  return (
    <li>
      {t(have, { count: counted.count })}{' '}
      <button type="button" className="as-link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {isOpen ? t('hide') : t('lookAtThem', { count: counted.count })}
      </button>
      {isOpen && (
        <ul>
          {counted.events.map((event) => (
            <li key={event.id}>
              <Link to={`/events/${event.id}`}>{event.title}</Link>
            </li>
          ))}
          {counted.count > counted.events.length && (
            <li>{t('andCountMore', { count: counted.count - counted.events.length })}</li>
          )}
        </ul>
      )}
    </li>
  )
}
