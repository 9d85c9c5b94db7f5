import { Plate } from '../shared/Plate'
import { usePage } from './page'

interface ChooserProps {
  only: string[] | null
  onChoose: (only: string[] | null) => void
}

/** The calendars of the edition: a legend, and the way to narrow the page to those that concern the reader. */
export function Chooser({ only, onChoose }: ChooserProps) {
  const { edition, speech, isAlive } = usePage()
  const choosable = edition.sources.filter((source) => source.canBeChosen)
  const isShown = (plate: string) => only === null || only.includes(plate)
  const press = (plate: string) => {
    const now = only ?? choosable.map((source) => source.plate)
    const next = now.includes(plate) ? now.filter((one) => one !== plate) : [...now, plate]
    // Nothing at all would be an empty page, and everything needs no choice.
    onChoose(
      next.length === 0 || next.length === choosable.length
        ? null
        : choosable.map((source) => source.plate).filter((one) => next.includes(one)),
    )
  }
  return (
    <div className="chooser" role="group" aria-label={speech.words.show}>
      <span className="soft">{speech.words.show}</span>
      {edition.sources.map((source) =>
        isAlive && source.canBeChosen ? (
          <button
            key={source.plate}
            type="button"
            className="choice"
            aria-pressed={isShown(source.plate)}
            onClick={() => press(source.plate)}
          >
            <Plate code={source.plate} colour={source.colour} size="small" /> {source.name}
          </button>
        ) : (
          <span key={source.plate} className="choice is-fixed">
            <Plate code={source.plate} colour={source.colour} size="small" /> {source.name}
          </span>
        ),
      )}
    </div>
  )
}
