import type { Problem } from '../Problem'
import type { PatternPart, Piece } from '../types'
import { Refusal } from '../Refusal'
import { pieceNames } from '../event/fields'
import { movedPart, usualLine, usualTitle, withoutPart, type Draft } from './draft'
import { Choice, Step } from './Step'
import { t } from './words'

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
    <Step number={3} title={t('words')} about={t('howATitleAndA')}>
      <PatternField
        label={t('aTitle')}
        addLabel={t('addToATitle')}
        pattern={draft.title?.length ? draft.title : draft.sources.length > 1 ? usualTitle : [{ piece: 'title' } as PatternPart]}
        pieces={pieces.filter((piece) => piece !== 'time' && piece !== 'date')}
        onChange={(title) => onChange({ title })}
      />
      {example && <p className="soft">{t.rich('feedsWriteTheFirstEntry', { example }, <b />)}</p>}
      <Refusal text={problem?.on('title')} />
      <PatternField
        label={t('aLineOfAList')}
        addLabel={t('addToALine')}
        pattern={draft.look.line?.length ? draft.look.line : usualLine}
        pieces={pieces}
        onChange={(line) => onChange({ look: { ...draft.look, line } })}
      />
      <Refusal text={problem?.on('look.line')} />
      <p className="sentence">
        {t('listsAreGrouped')}{' '}
        <Choice
          label={t('listsAreGroupedBy')}
          value={draft.look.grouping ?? 'day'}
          options={{
            day: t('byDay'),
            week: t('byWeek'),
            month: t('byMonth'),
            calendar: t('byCalendar'),
            category: t('byCategory'),
            time: t('notAtAll'),
          }}
          onChange={(grouping) => onChange({ look: { ...draft.look, grouping } })}
        />
        {t('whatLastsForDaysStands')}{' '}
        <Choice
          label={t('whatLastsForDaysStandsOn')}
          value={draft.look.severalDays ?? 'each'}
          options={{ each: t('eachOfThem'), first: t('theFirstOnly') }}
          onChange={(severalDays) => onChange({ look: { ...draft.look, severalDays } })}
        />
      </p>
    </Step>
  )
}

interface PatternFieldProps {
  label: string
  addLabel: string
  pattern: PatternPart[]
  pieces: Piece[]
  onChange: (pattern: PatternPart[] | null) => void
}

/** A pattern as a row of pieces: a piece is taken out, moved, or put at the end; text between is typed in its place. */
function PatternField({ label, addLabel, pattern, pieces, onChange }: PatternFieldProps) {
  const set = (index: number, text: string) => onChange(pattern.map((part, at) => (at === index ? { ...part, text } : part)))
  return (
    <div className="pattern" role="group" aria-label={label}>
      <span className="pattern-label">{label}</span>
      {pattern.map((part, index) =>
        part.piece ? (
          <span key={`${part.piece} ${index}`} className="pattern-piece">
            <button
              type="button"
              aria-label={t('pieceMoveBack', { piece: pieceNames[part.piece] })}
              disabled={index === 0}
              onClick={() => onChange(movedPart(pattern, index, -1))}
            >
              ‹
            </button>
            {pieceNames[part.piece]}
            <button
              type="button"
              aria-label={t('pieceMoveOn', { piece: pieceNames[part.piece] })}
              disabled={index === pattern.length - 1}
              onClick={() => onChange(movedPart(pattern, index, 1))}
            >
              ›
            </button>
            <button
              type="button"
              aria-label={t('takeOutPiece', { piece: pieceNames[part.piece] })}
              onClick={() => onChange(withoutPart(pattern, index))}
            >
              ×
            </button>
          </span>
        ) : (
          <input
            key={`text ${index}`}
            className="pattern-text"
            aria-label={t('textBetween')}
            maxLength={20}
            size={Math.max(2, (part.text ?? '').length)}
            value={part.text ?? ''}
            onChange={(event) => set(index, event.target.value)}
          />
        ),
      )}
      <select
        className="form-select inline-choice"
        aria-label={addLabel}
        value=""
        onChange={(event) => {
          const value = event.target.value
          if (value === 'usual') onChange(null)
          else if (value === 'text') onChange([...pattern, { piece: null, text: ' · ' }])
          else if (value) onChange([...pattern, { piece: value as Piece } as PatternPart])
        }}
      >
        <option value="">{t('add')}</option>
        {pieces
          .filter((piece) => !pattern.some((part) => part.piece === piece))
          .map((piece) => (
            <option key={piece} value={piece}>
              {pieceNames[piece]}
            </option>
          ))}
        <option value="text">{t('addTextBetween')}</option>
        <option value="usual">{t('asUsual')}</option>
      </select>
    </div>
  )
}
