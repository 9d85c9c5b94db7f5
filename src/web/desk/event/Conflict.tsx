import { useState } from 'react'
import type { MergeField } from '../Problem'
import type { EventForm, CalendarEvent } from '../types'
import { draftOf, requestOf } from './draft'
import { fieldName } from './fields'
import { t } from './words'

interface ConflictProps {
  mine: EventForm
  theirs: CalendarEvent
  differing: MergeField[]
  onSave: (merged: EventForm) => void
}

/** Somebody else saved first: what only one of the two changed stays theirs, and where both did, one chooses. */
export function Conflict({ mine, theirs, differing, onSave }: ConflictProps) {
  const [taken, setTaken] = useState<string[]>([])
  const savedBy = theirs.savedBy ?? t('somebody')
  if (theirs.isRemoved)
    return (
      <div className="conflict" role="alert">
        <p>{t.rich('somebodyRemovedItMeanwhile', { savedBy }, <b />)}</p>
      </div>
    )
  const isYours = ({ field, by }: MergeField) => by === 'you' || (by === 'both' && !taken.includes(field))
  const toChoose = differing.filter(({ by }) => by === 'both')
  return (
    <div className="conflict" role="alert">
      <p>
        {t.rich('somebodySavedItMeanwhile', { savedBy }, <b />)}{' '}
        {toChoose.length > 0 ? t('whereYouBothChangedSomething') : differing.length > 0 && t('youChangedDifferentThingsBoth')}
      </p>
      {differing.length > 0 ? (
        <table>
          <thead>
            <tr>
              <th scope="col" />
              <th scope="col">{t('savedBy', { savedBy })}</th>
              <th scope="col">{t('yours')}</th>
            </tr>
          </thead>
          <tbody>
            {differing.map((one) => (
              <tr key={one.field}>
                <th scope="row">{fieldName(one.field)}</th>
                <Side one={one} side="theirs" isKept={!isYours(one)} onTake={() => setTaken([...taken, one.field])} />
                <Side
                  one={one}
                  side="yours"
                  isKept={isYours(one)}
                  onTake={() => setTaken(taken.filter((field) => field !== one.field))}
                />
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p>{t('whatExactlyDiffersCannotBe')}</p>
      )}
      <button
        type="button"
        className="btn btn-outline-ink"
        onClick={() => onSave(differing.length > 0 ? merged(mine, theirs, differing.filter(isYours)) : mine)}
      >
        {differing.length > 0 ? t('saveItSo') : t('saveMineInItsPlace')}
      </button>{' '}
      <button type="button" className="btn btn-quiet" onClick={() => window.location.reload()}>
        {t('takeTheirsDropMine')}
      </button>
    </div>
  )
}

interface SideProps {
  one: MergeField
  side: 'theirs' | 'yours'
  isKept: boolean
  onTake: () => void
}

/** What one of the two says; chosen where both changed it. */
function Side({ one, side, isKept, onTake }: SideProps) {
  const said = one[side] || '–'
  if (one.by !== 'both') return <td>{isKept ? <b>{said}</b> : <s>{said}</s>}</td>
  return (
    <td>
      <label>
        <input type="radio" className="form-check-input" name={`conflict-${one.field}`} checked={isKept} onChange={onTake} />{' '}
        {isKept ? <b>{said}</b> : said}
      </label>
    </td>
  )
}

/** What stands there now, with what of mine is kept. */
function merged(mine: EventForm, theirs: CalendarEvent, yours: MergeField[]): EventForm {
  const form = requestOf(draftOf(theirs), theirs.state === 'draft')
  for (const field of yours.flatMap((one) => one.form) as (keyof EventForm)[]) Object.assign(form, { [field]: mine[field] })
  return form
}
