import { useState } from 'react'
import type { CalendarEvent } from '../types'
import { useWrite } from '../useWrite'
import { useTargetsOf } from './queries'

/** Into which calendars elsewhere the event of a form is written too. */
export function useAlsoInto(calendars: string[], stored: CalendarEvent | null) {
  const offered = useTargetsOf(
    calendars.filter((id) => id !== ''),
    stored?.id ?? null,
  )
  const [said, setAlso] = useState<string[] | null>(null)
  const write = useWrite()
  const before = (offered.data ?? []).filter((one) => one.isChosen).map((one) => one.id)
  const possible = (offered.data ?? []).filter((one) => !one.takesAll).map((one) => one.id)
  const also = said ?? before
  return {
    offered,
    also,
    setAlso,
    isAlsoChanged: said !== null && [...said].sort().join(' ') !== [...before].sort().join(' '),
    /** Said of the event once it is saved. */
    saveAlso: async (eventId: string) => {
      if (said !== null) await write('PUT', `/events/${eventId}/targets`, { targets: said.filter((id) => possible.includes(id)) })
    },
  }
}
