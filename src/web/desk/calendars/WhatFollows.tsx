import { useState } from 'react'
import { Link } from 'react-router'
import type { Opening } from '../api'

const names = { editors: 'editors', members: 'members', link: 'those with the link', everyone: 'everyone' }

/** What a changed table reveals and takes away, before it is changed. */
export function WhatFollows({ openings }: { openings: Opening[] }) {
  return (
    <ul className="what-follows">
      {openings.map((opening) => (
        <li key={opening.audience}>
          <b>{headOf(opening)}</b>
          <ul>
            <Named counted={opening.withEmail} one="has an e-mail address in it" many="have an e-mail address in them" />
            <Named counted={opening.withPhone} one="has a telephone number in it" many="have a telephone number in them" />
            <Named counted={opening.withFile} one="has a file, which they get too" many="have files, which they get too" />
            {opening.drafts > 0 && opening.revealed > 0 && (
              <li>
                {opening.drafts === 1
                  ? '1 draft or waiting event stays inside'
                  : `${opening.drafts} drafts and waiting events stay inside`}
              </li>
            )}
            {opening.empties.map(({ what, programs }) => (
              <li key={what}>
                the {kinds[what] ?? what} will have nothing to show: {sayPrograms(programs)}
              </li>
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
      the edition <Link to={`/editions/${edition.id}`}>{edition.name}</Link>{' '}
      {edition.becomesEmpty ? 'will be empty' : 'will be without it'}: {sayPrograms(edition.programs)}
    </li>
  ))
}

const kinds: Record<string, string> = { page: 'reading page', embed: 'embed', feed: 'feed' }

export function sayPrograms(programs: number): string {
  if (programs === 0) return 'nobody fetched it in the last 7 days'
  return programs === 1 ? '1 program fetched it in the last 7 days' : `${programs} programs fetched it in the last 7 days`
}

function headOf(opening: Opening): string {
  const whom = names[opening.audience]
  if (opening.revealed > 0) {
    const events = opening.revealed === 1 ? '1 event' : `${opening.revealed} events`
    const becomes = opening.revealed === 1 ? 'becomes' : 'become'
    if (opening.audience === 'everyone' && opening.was === 'nothing') return `${events} ${becomes} public.`
    return `${events} ${becomes} ${opening.was === 'nothing' ? 'visible to' : 'more visible to'} ${whom}.`
  }
  if (opening.hidden > 0) {
    const events = opening.hidden === 1 ? '1 event' : `${opening.hidden} events`
    return opening.becomes === 'nothing' ? `${events} out of sight for ${whom}.` : `${events} less visible to ${whom}.`
  }
  return `No event changes for ${whom}; those to come will.`
}

interface NamedProps {
  counted: Opening['withEmail']
  one: string
  many: string
}

/** How many, with their titles when somebody wants to look at them. */
function Named({ counted, one, many }: NamedProps) {
  const [isOpen, setOpen] = useState(false)
  if (counted.count === 0) return null
  return (
    <li>
      {counted.count} {counted.count === 1 ? one : many}.{' '}
      <button type="button" className="as-link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {isOpen ? 'Hide' : counted.count === 1 ? 'Look at it' : 'Look at them'}
      </button>
      {isOpen && (
        <ul>
          {counted.events.map((event) => (
            <li key={event.id}>
              <Link to={`/events/${event.id}`}>{event.title}</Link>
            </li>
          ))}
          {counted.count > counted.events.length && <li>and {counted.count - counted.events.length} more</li>}
        </ul>
      )}
    </li>
  )
}
