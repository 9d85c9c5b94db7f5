import { useSyncExternalStore } from 'react'

/** As the styles have it: a phone. */
const narrow = '(max-width: 700px)'

function subscribe(tell: () => void): () => void {
  const query = window.matchMedia(narrow)
  query.addEventListener('change', tell)
  return () => query.removeEventListener('change', tell)
}

export function useIsNarrow(): boolean {
  return useSyncExternalStore(subscribe, () => window.matchMedia(narrow).matches)
}
