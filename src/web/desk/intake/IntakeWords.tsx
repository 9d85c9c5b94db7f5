import { useColours, useFillableCalendars } from '../calendars/queries'
import { freeColour } from '../hues'
import { useLists } from '../lists/queries'
import type { FoundWord, IntakeAnswers, IntakeFound, WordChoice } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { t } from './words'

interface WordsProps {
  found: IntakeFound
  answers: IntakeAnswers
  answer: (change: Partial<IntakeAnswers>) => void
}

/** What is meant by each word that a column, or the categories, say of calendars. */
export function CalendarWords({ found, answers, answer }: WordsProps) {
  const editable = useFillableCalendars()
  if (found.calendars.length === 0) return <p className="soft">{t('noWordsOfCalendars')}</p>
  return (
    <WordList
      words={found.calendars}
      isAsked={(word) => word.id === null && !word.isLeftOut && answers.calendarId === null}
      choices={editable.map(({ id, plate, name }) => ({ id, name: `${plate} ${name}` }))}
      none={t(answers.calendarId ? 'asAllElse' : 'choose')}
      onChoose={(choice) => answer({ calendars: withChoice(answers.calendars ?? [], choice) })}
    />
  )
}

/** What is meant by each word by which a file sorts its events. */
export function CategoryWords({ found, answers, answer, mayMake }: WordsProps & { mayMake: boolean }) {
  const categories = useLists().data?.categories ?? []
  const colours = useColours().data ?? []
  const write = useWrite()
  const attempt = useAttempt()
  const make = (word: string) =>
    void attempt(async () => {
      const colour = freeColour(colours, categories)
      const made = await write('POST', '/lists/categories', { name: word, colour: colour?.name ?? null })
      answer({ categories: withChoice(answers.categories ?? [], { word, id: made.id, isLeftOut: false }) })
    })
  return (
    <WordList
      words={found.categories}
      isAsked={() => false}
      choices={categories.map(({ id, name }) => ({ id, name }))}
      none={t('asATag')}
      make={mayMake ? make : undefined}
      onChoose={(choice) => answer({ categories: withChoice(answers.categories ?? [], choice) })}
    />
  )
}

const withChoice = (choices: WordChoice[], choice: WordChoice) => [...choices.filter((one) => one.word !== choice.word), choice]

interface WordListProps {
  words: FoundWord[]
  isAsked: (word: FoundWord) => boolean
  choices: { id: string; name: string }[]
  /** What becomes of it where nothing is chosen. */
  none: string
  make?: (word: string) => void
  onChoose: (choice: WordChoice) => void
}

function WordList({ words, isAsked, choices, none, make, onChoose }: WordListProps) {
  return (
    <ul className="intake-words">
      {words.map((word) => (
        <li key={word.word} className={isAsked(word) ? 'is-asked' : undefined}>
          <label>
            <span>
              {word.word} <small className="soft">{t('timesCount', { count: word.count })}</small>
            </span>
            <select
              className="form-select"
              value={word.isLeftOut ? 'left' : (word.id ?? '')}
              onChange={(event) =>
                onChoose({
                  word: word.word,
                  id: event.target.value === 'left' || event.target.value === '' ? null : event.target.value,
                  isLeftOut: event.target.value === 'left',
                })
              }
            >
              <option value="">{none}</option>
              {choices.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
              <option value="left">{t('leaveOut')}</option>
            </select>
          </label>
          {make && word.id === null && !word.isLeftOut && (
            <button
              type="button"
              className="as-link"
              aria-label={t('makeCategoryNamed', { name: word.word })}
              onClick={() => make(word.word)}
            >
              {t('makeCategory')}
            </button>
          )}
        </li>
      ))}
    </ul>
  )
}
