import type { Landing, SourceRule, SourceRules } from '../types'

export const asked: Landing = { to: 'ask', calendarId: null, as: 'asItCame' }

export const noRules: SourceRules = { rules: [], else: asked, from: null, until: null, text: '', only: [], isOpen: false }

export const newRule: SourceRule = { by: 'titleBegins', words: [], landing: asked, withoutWord: true }

/** Words as they are typed, with commas between. */
export const wordsOf = (text: string): string[] =>
  text
    .split(',')
    .map((word) => word.trim())
    .filter((word) => word !== '')

export const moved = <T>(list: readonly T[], from: number, to: number): T[] => {
  const others = list.filter((_, place) => place !== from)
  return [...others.slice(0, to), list[from] as T, ...others.slice(to)]
}
