import { useEffect, useLayoutEffect, useRef } from 'react'

/** Single keys that act while nobody is typing. */
export function useKeys(actions: Record<string, () => void>): void {
  const current = useRef(actions)
  // Before anything is painted: a key that is pressed on seeing a screen acts on that screen.
  useLayoutEffect(() => {
    current.current = actions
  })
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      const action = current.current[event.key]
      if (!action) return
      event.preventDefault()
      action()
    }
    document.addEventListener('keydown', onKeyDown)
    return () => document.removeEventListener('keydown', onKeyDown)
  }, [])
}

/** A key belongs to what is being typed, or to a question that is asked. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || target.matches('input, textarea, select') || target.closest('[role=dialog]') !== null)
  )
}
