import { useEffect, useRef, useState } from 'react'
import { Problem } from './Problem'
import { awaited } from './readings'

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
  const [reading, setReading] = useState<Reading<Value> | null>(null)
  const asking = useRef<AbortController>(undefined)
  const told = useRef(onChange)
  useEffect(() => {
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
    void awaited(
      read(typed, controller.signal).then(
        (values) => controller.signal.aborted || take({ of: typed, values, problem: null }),
        (refused: unknown) => {
          if (controller.signal.aborted) return
          if (!(refused instanceof Problem)) throw refused
          take({ of: typed, values: [], problem: refused })
        },
      ),
    )
  }
  const isRead = text !== null && reading?.of === text && text.trim() !== ''
  return {
    text: isLeft && isRead && reading.values.length === 1 ? null : text,
    isUnread: isRead && reading.values.length !== 1,
    choices: isRead && reading.values.length > 1 ? reading.values : [],
    problem: isRead ? reading.problem : null,
    type,
    settle: () => setText(null),
    leave: () => setIsLeft(true),
  }
}
