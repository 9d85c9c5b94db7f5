import type { PatternPart, Piece, Problem } from '../api'
import { Refusal } from '../Refusal'
import { pieceNames } from '../event/fields'
import { movedPart, usualLine, usualTitle, withoutPart, type Draft } from './draft'
import { Choice, Step } from './Step'

const pieces = Object.keys(pieceNames) as Piece[]

interface WordsStepProps {
  draft: Draft
  example: string | null | undefined
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
}

/** How titles and the lines of lists read. */
export function WordsStep({ draft, example, problem, onChange }: WordsStepProps) {
  return (
    <Step number={3} title="Words" about="how a title and a line read">
      <PatternField
        label="A title"
        pattern={draft.title?.length ? draft.title : draft.sources.length > 1 ? usualTitle : [{ piece: 'title' } as PatternPart]}
        pieces={pieces.filter((piece) => piece !== 'time' && piece !== 'date')}
        onChange={(title) => onChange({ title })}
      />
      {example && (
        <p className="soft">
          Feeds write the first entry as <b>{example}</b>. Pages draw the plates.
        </p>
      )}
      <Refusal text={problem?.on('title')} />
      <PatternField
        label="A line of a list"
        pattern={draft.look.line?.length ? draft.look.line : usualLine}
        pieces={pieces}
        onChange={(line) => onChange({ look: { ...draft.look, line } })}
      />
      <Refusal text={problem?.on('look.line')} />
      <p className="sentence">
        Lists are grouped{' '}
        <Choice
          label="Lists are grouped by"
          value={draft.look.grouping ?? 'day'}
          options={{
            day: 'by day',
            week: 'by week',
            month: 'by month',
            calendar: 'by calendar',
            category: 'by category',
            time: 'not at all',
          }}
          onChange={(grouping) => onChange({ look: { ...draft.look, grouping } })}
        />
        ; what lasts for days stands on{' '}
        <Choice
          label="What lasts for days stands on"
          value={draft.look.severalDays ?? 'each'}
          options={{ each: 'each of them', first: 'the first only' }}
          onChange={(severalDays) => onChange({ look: { ...draft.look, severalDays } })}
        />
      </p>
    </Step>
  )
}

interface PatternFieldProps {
  label: string
  pattern: PatternPart[]
  pieces: Piece[]
  onChange: (pattern: PatternPart[] | null) => void
}

/** A pattern as a row of pieces: a piece is taken out, moved, or put at the end; text between is typed in its place. */
function PatternField({ label, pattern, pieces, onChange }: PatternFieldProps) {
  const set = (index: number, text: string) => onChange(pattern.map((part, at) => (at === index ? { ...part, text } : part)))
  return (
    <div className="pattern" role="group" aria-label={label}>
      <span className="pattern-label">{label}</span>
      {pattern.map((part, index) =>
        part.piece ? (
          <span key={`${part.piece} ${index}`} className="pattern-piece">
            <button
              type="button"
              aria-label={`${pieceNames[part.piece]}: move back`}
              disabled={index === 0}
              onClick={() => onChange(movedPart(pattern, index, -1))}
            >
              ‹
            </button>
            {pieceNames[part.piece]}
            <button
              type="button"
              aria-label={`${pieceNames[part.piece]}: move on`}
              disabled={index === pattern.length - 1}
              onClick={() => onChange(movedPart(pattern, index, 1))}
            >
              ›
            </button>
            <button
              type="button"
              aria-label={`Take out ${pieceNames[part.piece]}`}
              onClick={() => onChange(withoutPart(pattern, index))}
            >
              ×
            </button>
          </span>
        ) : (
          <input
            key={`text ${index}`}
            className="pattern-text"
            aria-label="Text between"
            maxLength={20}
            size={Math.max(2, (part.text ?? '').length)}
            value={part.text ?? ''}
            onChange={(event) => set(index, event.target.value)}
          />
        ),
      )}
      <select
        className="form-select inline-choice"
        aria-label={`Add to ${label.toLowerCase()}`}
        value=""
        onChange={(event) => {
          const value = event.target.value
          if (value === 'usual') onChange(null)
          else if (value === 'text') onChange([...pattern, { piece: null, text: ' · ' }])
          else if (value) onChange([...pattern, { piece: value as Piece } as PatternPart])
        }}
      >
        <option value="">add …</option>
        {pieces
          .filter((piece) => !pattern.some((part) => part.piece === piece))
          .map((piece) => (
            <option key={piece} value={piece}>
              {pieceNames[piece]}
            </option>
          ))}
        <option value="text">text between</option>
        <option value="usual">as usual again</option>
      </select>
    </div>
  )
}
