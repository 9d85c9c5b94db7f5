import { usePage } from './page'

interface WordChipsProps {
  words: { word: string; colour: string | null }[]
  about: string[]
  onNarrow: (about: string[]) => void
}

/** Categories and tags of what is in sight: pressed ones narrow the page to what has any of them. */
export function WordChips({ words, about, onNarrow }: WordChipsProps) {
  const { speech, isAlive } = usePage()
  const isPressed = (word: string) => about.some((one) => one.toLowerCase() === word.toLowerCase())
  // A single word that everything has is no choice.
  if (words.length < 2) return null
  return (
    <div className="chooser word-chips" role="group" aria-label={speech.words.about}>
      <span className="soft">{speech.words.about}</span>
      {words.map(({ word, colour }) => {
        const look = `choice${colour ? ` category hue-${colour}` : ''}`
        return isAlive ? (
          <button
            key={word}
            type="button"
            className={look}
            aria-pressed={isPressed(word)}
            dir="auto"
            onClick={() =>
              onNarrow(isPressed(word) ? about.filter((one) => one.toLowerCase() !== word.toLowerCase()) : [...about, word])
            }
          >
            {word}
          </button>
        ) : (
          // As large as it will be: nothing moves when it can be pressed.
          <span key={word} className={look} dir="auto">
            {word}
          </span>
        )
      })}
      {about.length > 0 && (
        <button type="button" className="as-link" onClick={() => onNarrow([])}>
          {speech.words.allWords}
        </button>
      )}
    </div>
  )
}
