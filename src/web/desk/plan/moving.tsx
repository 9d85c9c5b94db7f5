import { createContext, useContext, useMemo, useRef, type ReactNode } from 'react'
import { addDays, daysBetween, type Day } from '../../shared/days'
import { firstDay, timeOf } from '../../shared/slips'
import { Problem } from '../Problem'
import { addressOf } from '../dates'
import type { CalendarEvent, ChangeRequest, Occurrence } from '../types'
import { useChange } from '../changes/Changes'
import { dayUnder } from './bars'
import { useRefresh } from '../refresh'
import { useToast } from '../Toasts'
import { t } from './words'

interface Dragged {
  occurrence: Occurrence
  /** The day of the slip that was taken hold of; what lasts for days has several. */
  day: Day
  /** How far below its top edge the slip was taken hold of, in pixels. */
  below: number
}

interface Moving {
  take: (dragged: Dragged) => void
  /** What is being dragged, if it is a slip of the plan. */
  held: () => Dragged | null
  /** Moves a date by days, and to another start time when one is given. */
  move: (occurrence: Occurrence, days: number, start?: string) => Promise<void>
  /** Makes a date last so many minutes. */
  stretch: (occurrence: Occurrence, minutes: number) => Promise<void>
}

const MovingContext = createContext<Moving | null>(null)

export function useMoving(): Moving {
  const moving = useContext(MovingContext)
  if (!moving) throw new Error('Slips move only on the plan.')
  return moving
}

export function MovingProvider({ children }: { children: ReactNode }) {
  const held = useRef<Dragged | null>(null)
  const change = useChange()
  const { everything } = useRefresh()
  const toast = useToast()
  const moving = useMemo<Moving>(() => {
    const put = async (occurrence: Occurrence, move: NonNullable<ChangeRequest['move']>) => {
      const hadFocus = linkOf(occurrence) === document.activeElement
      try {
        const { eventId, recurrenceId, version } = occurrence
        await change(eventId, { act: 'edit', recurrenceId, version: version ?? 0, event: null, move })
      } catch (failed) {
        if (failed instanceof Problem && failed.status === 409) {
          // The slip lay where it was when the plan was fetched: what is there now is shown first.
          const { savedBy } = failed.current as CalendarEvent
          toast(t('changedMeanwhile', { savedBy: savedBy ?? t('somebody'), title: occurrence.title }))
          await everything()
        } else toast(failed instanceof Error ? failed.message : String(failed))
      }
      // Where it stands now it is drawn anew: whoever moved it by keyboard goes on from there.
      if (hadFocus) requestAnimationFrame(() => linkOf(occurrence)?.focus())
    }
    return {
      take: (dragged) => (held.current = dragged),
      held: () => held.current,
      move: async (occurrence, days, start) => {
        const own = ownTimes(occurrence)
        if (days === 0 && (start === undefined || start === timeOf(own.start))) return
        const from = occurrence.allDay || !start ? null : `${start}:00`
        await put(occurrence, { date: addDays(firstDay(own), days), from, minutes: null })
      },
      stretch: async (occurrence, minutes) => {
        const own = ownTimes(occurrence)
        await put(occurrence, { date: firstDay(own), from: `${timeOf(own.start)}:00`, minutes })
      },
    }
  }, [change, everything, toast])
  return <MovingContext value={moving}>{children}</MovingContext>
}

/** On the clock of the event itself. */
const ownTimes = (occurrence: Occurrence) => (occurrence.own ? { ...occurrence.own, allDay: false } : occurrence)

/** The slip of a date; of one that is no series, wherever it is by now. */
function linkOf(occurrence: Occurrence): HTMLElement | null {
  const ofEvent = [...document.querySelectorAll<HTMLAnchorElement>(`.plan-body a[href*="${occurrence.eventId}"]`)]
  return (
    ofEvent.find((link) => link.getAttribute('href')?.endsWith(addressOf(occurrence))) ??
    (occurrence.recurs ? null : ofEvent[0]) ??
    null
  )
}

/** What a day needs to have slips dropped on it. */
export function useDropOn(day: Day, calendarId: string | null) {
  const moving = useMoving()
  const toast = useToast()
  return {
    onDragOver: (event: React.DragEvent) => {
      if (moving.held()) event.preventDefault()
    },
    onDrop: (event: React.DragEvent) => {
      const dragged = moving.held()
      if (!dragged) return
      event.preventDefault()
      if (calendarId && dragged.occurrence.calendarId !== calendarId) toast(t('aDateKeepsItsCalendar'))
      // What lies across several days may lie between.
      else void moving.move(dragged.occurrence, daysBetween(dragged.day, dayUnder(event) ?? day))
    },
  }
}

/** What a slip needs to be moved, by hand and by keyboard: Shift with the arrows. */
export function useMovable(
  occurrence: Occurrence,
  day: Day,
  mayEdit: boolean,
  onUpDown?: (step: 1 | -1) => void,
  onLonger?: (step: 1 | -1) => void,
) {
  const moving = useMoving()
  if (!mayEdit) return {}
  return {
    draggable: true,
    'aria-keyshortcuts': 'Shift+ArrowLeft Shift+ArrowRight Shift+ArrowUp Shift+ArrowDown',
    onDragStart: (event: React.DragEvent) => {
      event.dataTransfer.effectAllowed = 'move'
      event.dataTransfer.setData('text/plain', occurrence.title)
      const below = event.clientY - event.currentTarget.getBoundingClientRect().top
      moving.take({ occurrence, day: dayUnder(event) ?? day, below })
    },
    onKeyDown: (event: React.KeyboardEvent) => {
      if (!event.shiftKey) return
      const sideways = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
      const upright = { ArrowUp: -1, ArrowDown: 1 }[event.key] as 1 | -1 | undefined
      if (!sideways && !upright) return
      event.preventDefault()
      if (event.altKey) {
        if (upright) onLonger?.(upright)
      } else if (sideways) void moving.move(occurrence, sideways)
      else if (upright && onUpDown) onUpDown(upright)
      else if (upright) void moving.move(occurrence, upright * 7)
    },
  }
}
