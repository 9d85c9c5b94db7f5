import { useSyncExternalStore } from 'react'

/** An audience whose view somebody can take. */
export type SeenAs = 'members' | 'link' | 'everyone'

const key = 'valtro-see-as'
const all: SeenAs[] = ['members', 'link', 'everyone']
const listeners = new Set<() => void>()

let now: SeenAs | null | undefined

/** As whom this window looks at things; null for oneself. It lasts as long as the window does. */
export function seenAs(): SeenAs | null {
  now ??= all.find((one) => one === sessionStorage.getItem(key)) ?? null
  return now
}

export function seeAs(audience: SeenAs | null): void {
  now = audience
  if (audience) sessionStorage.setItem(key, audience)
  else sessionStorage.removeItem(key)
  listeners.forEach((listener) => listener())
}

export function useSeenAs(): SeenAs | null {
  return useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, seenAs)
}
