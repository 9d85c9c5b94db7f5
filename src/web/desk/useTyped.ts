import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { Problem } from './Problem'
import { inOrder } from './readings'

/** What somebody types into a field, as the server reads it. */
export interface Typed<Value> {
  /** As it stands in the field; null while it says what is kept. */
  text: string | null
  /** It is none; or two, of which one has to be chosen. */
  isUnread: boolean
  choices: Value[]
  /** Why it could not be read. */
  problem: Problem | null
  type: (text: string) => void
  /** The field says what is kept again. */
  settle: () => void
  /** Somebody comes to the field: what stands there stays, also when what is kept becomes another before they type. */
  enter: (shown: string) => void
  /** Somebody leaves the field: what could be read is written as it is kept. */
  leave: () => void
}

interface Reading<Value> {
  of: string
  values: Value[]
  problem: Problem | null
}

/**
 * @param read Gives what a text says: one value, two where it could be either, none where it is none.
 * @param onChange Told what is kept from now on: null while what stands there is none.
 */
export function useTyped<Value>(
  read: (text: string, signal: AbortSignal) => Promise<Value[]>,
  onChange: (value: Value | null) => void,
): Typed<Value> {
  const [text, setText] = useState<string | null>(null)
  const [isLeft, setIsLeft] = useState(false)
  const [held, setHeld] = useState<string | null>(null)
  const [reading, setReading] = useState<Reading<Value> | null>(null)
  const asking = useRef<AbortController>(undefined)
  const told = useRef(onChange)
  // Before anything else is read: of two readings at once the second follows from what the first changed.
  useLayoutEffect(() => {
    told.current = onChange
  })
  useEffect(() => () => asking.current?.abort(), [])

  const take = (next: Reading<Value>) => {
    setReading(next)
    told.current(next.values.length === 1 ? (next.values[0] ?? null) : null)
  }
  const type = (typed: string) => {
    asking.current?.abort()
    setText(typed)
    setIsLeft(false)
    if (typed.trim() === '') return take({ of: typed, values: [], problem: null })
    const controller = new AbortController()
    asking.current = controller
    const taking = (values: Value[], problem: Problem | null) => () => {
      if (!controller.signal.aborted) take({ of: typed, values, problem })
    }
    inOrder(
      read(typed, controller.signal).then(
        (values) => taking(values, null),
        (refused: unknown) => {
          if (controller.signal.aborted) return undefined
          if (!(refused instanceof Problem)) throw refused
          return taking([], refused)
        },
      ),
    )
  }
  const isRead = text !== null && reading?.of === text && text.trim() !== ''
  const isSettled = isRead && reading.values.length === 1
  return {
    text: isLeft && isSettled ? null : (text ?? held),
    isUnread: isRead && reading.values.length !== 1,
    choices: isRead && reading.values.length > 1 ? reading.values : [],
    problem: isRead ? reading.problem : null,
    type,
    settle: () => {
      setText(null)
      setHeld(null)
    },
    enter: (shown) => {
      if (isSettled) setText(null)
      setHeld(shown)
      setIsLeft(false)
    },
    leave: () => {
      setHeld(null)
      setIsLeft(true)
    },
  }
}
