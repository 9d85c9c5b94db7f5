import { startTransition, useEffect, useRef, useState } from 'react'

/** Whether something is in sight, or nearly: from then on it is drawn. Of a long list only the beginning is drawn at once. */
export function useIsNear<T extends Element>(isAtFirst: boolean) {
  const element = useRef<T>(null)
  const [isNear, setIsNear] = useState(isAtFirst || typeof IntersectionObserver === 'undefined')
  useEffect(() => {
    if (isNear || !element.current) return
    const observer = new IntersectionObserver(
      (entries) => {
        // Many come near at once: they are drawn in pieces, and nobody who scrolls or types waits for them.
        if (entries.some((entry) => entry.isIntersecting)) startTransition(() => setIsNear(true))
      },
      { rootMargin: '500px' },
    )
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [isNear])
  return { element, isNear }
}
