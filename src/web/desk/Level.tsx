import type { Detail, Disclosure } from './types'
import { detailSaid, detailWords, levelsOf } from './openness'

/** A detail level as a small bar, empty to full, with its word beside it. */
export function Level({ detail, word = detailWords[detail] }: { detail: Detail; word?: string }) {
  return (
    <span className="level">
      <span className={`level-bar level-${detail}`} aria-hidden="true" />
      <span className={detail === 'nothing' ? 'soft' : undefined}>{word}</span>
    </span>
  )
}

/** Four bars, narrowest audience first. */
export function Levels({ disclosure }: { disclosure: Disclosure }) {
  const levels = levelsOf(disclosure)
  return (
    <span className="levels" title={levels.map(({ audience, detail }) => `${audience}: ${detailSaid[detail]}`).join(', ')}>
      {levels.map(({ audience, detail }) => (
        <i key={audience} className={`level-tall level-${detail}`} aria-hidden="true" />
      ))}
    </span>
  )
}
