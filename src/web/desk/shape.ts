import type { Occurrence } from './types'

/** The shape of a date wherever it stands: of its state, of what is due, of what is not certain yet. */
export function shapeOf({ state, kind, certainty }: Pick<Occurrence, 'state' | 'kind' | 'certainty'>): string {
  return [`slip-${state}`, kind === 'deadline' && 'due', certainty === 'tentative' && 'torn'].filter(Boolean).join(' ')
}
