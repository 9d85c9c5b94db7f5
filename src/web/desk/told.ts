import type { Query } from '@tanstack/react-query'

/** Since when news of the desk come by themselves; null while they do not. */
let toldSince: number | null = null

/** What was asked for just before may have been answered after. */
const SLACK = 2_000

export function setTold(isTold: boolean): void {
  toldSince = isTold ? (toldSince ?? Date.now()) : null
}

/** How often something is asked for by the clock: once more when news of it begin to come, then not at all. */
export function unlessTold(milliseconds: number): (query: Pick<Query, 'state'>) => number | false {
  return ({ state }) => (toldSince !== null && state.dataUpdatedAt > toldSince + SLACK ? false : milliseconds)
}
