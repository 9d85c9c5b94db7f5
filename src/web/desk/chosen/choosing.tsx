import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'
import type { ChosenDate, Occurrence } from '../types'

interface Choosing {
  /** Slips are chosen instead of opened. */
  isOn: boolean
  dates: ChosenDate[]
  has: (date: ChosenDate) => boolean
  toggle: (date: ChosenDate) => void
  /** Chooses all of these as well. */
  add: (dates: ChosenDate[]) => void
  start: () => void
  clear: () => void
  /** Nothing is chosen any more, and slips open again. */
  stop: () => void
}

const nameOf = (date: ChosenDate) => `${date.eventId} ${date.recurrenceId}`

const ChoosingContext = createContext<Choosing | null>(null)

export function useChoosing(): Choosing {
  const choosing = useContext(ChoosingContext)
  if (!choosing) throw new Error('Dates are chosen only on the plan.')
  return choosing
}

/** What is chosen of the plan. It stays when the plan goes to other weeks or another view. */
export function ChoosingProvider({ children }: { children: ReactNode }) {
  const [isOn, setOn] = useState(false)
  const [chosen, setChosen] = useState<ReadonlyMap<string, ChosenDate>>(new Map())
  const choosing = useMemo<Choosing>(
    () => ({
      isOn,
      dates: [...chosen.values()],
      has: (date) => chosen.has(nameOf(date)),
      toggle: (date) => {
        setOn(true)
        setChosen((before) => {
          const next = new Map(before)
          if (!next.delete(nameOf(date))) next.set(nameOf(date), date)
          return next
        })
      },
      add: (dates) => setChosen((before) => new Map([...before, ...dates.map((date) => [nameOf(date), named(date)] as const)])),
      start: () => setOn(true),
      clear: () => setChosen(new Map()),
      stop: () => {
        setOn(false)
        setChosen(new Map())
      },
    }),
    [isOn, chosen],
  )
  return <ChoosingContext value={choosing}>{children}</ChoosingContext>
}

const named = ({ eventId, recurrenceId }: ChosenDate): ChosenDate => ({ eventId, recurrenceId })

/** Only what somebody may change can be chosen: such dates say which version of their event they show. */
export const mayChoose = (occurrence: Occurrence) => occurrence.version !== null

/** What a link to a date needs to be chosen: Ctrl and a click, or the space bar, begins; then a click does. */
export function useChoosable(occurrence: Occurrence) {
  const { isOn, has, toggle } = useChoosing()
  if (!mayChoose(occurrence)) return isOn ? { 'aria-disabled': true } : {}
  const choose = (event: React.SyntheticEvent) => {
    event.preventDefault()
    toggle(named(occurrence))
  }
  return {
    ...(isOn ? { role: 'checkbox', 'aria-checked': has(occurrence) } : {}),
    onClick: (event: React.MouseEvent) => {
      if (isOn || event.ctrlKey || event.metaKey) choose(event)
    },
    onKeyDownCapture: (event: React.KeyboardEvent) => {
      if (event.key === ' ' || (isOn && event.key === 'Enter')) choose(event)
    },
  }
}

/** How many events the chosen dates are of. */
export const eventsOf = (dates: ChosenDate[]) => new Set(dates.map((date) => date.eventId)).size
