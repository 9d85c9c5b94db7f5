import { useSyncExternalStore } from 'react'

const never = () => () => undefined

/** False while the page is painted and taken over, then true: what is the reader's own comes only then. */
export function useAlive(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  )
}
