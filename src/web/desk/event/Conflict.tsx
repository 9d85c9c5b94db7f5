import { useState } from 'react'
import type { EventForm, CalendarEvent, MergeField } from '../api'
import { draftOf, requestOf } from './draft'
import { fieldName } from './fields'

interface ConflictProps {
  mine: EventForm
  theirs: CalendarEvent
  differing: MergeField[]
  onSave: (merged: EventForm) => void
}

/** Somebody else saved first: what only one of the two changed stays theirs, and where both did, one chooses. */
export function Conflict({ mine, theirs, differing, onSave }: ConflictProps) {
  const [taken, setTaken] = useState<string[]>([])
  const savedBy = theirs.savedBy ?? 'Somebody'
  if (theirs.isRemoved)
    return (
      <div className="conflict" role="alert">
        <p>
          <b>{savedBy} removed this event while you were working on it.</b> Your text is still here; copy what you need. It can be
          restored from its page.
        </p>
      </div>
    )
  const isYours = ({ field, by }: MergeField) => by === 'you' || (by === 'both' && !taken.includes(field))
  const toChoose = differing.filter(({ by }) => by === 'both')
  return (
    <div className="conflict" role="alert">
      <p>
        <b>{savedBy} saved this event while you were working on it.</b> Nothing of yours is saved yet.{' '}
        {toChoose.length > 0
          ? 'Where you both changed something, choose; everything else of both of you is kept.'
          : differing.length > 0 && 'You changed different things: both can be kept.'}
      </p>
      {differing.length > 0 ? (
        <table>
          <thead>
            <tr>
              <th scope="col" />
              <th scope="col">Saved by {savedBy}</th>
              <th scope="col">Yours</th>
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
        <p>What exactly differs cannot be said; look at it before you save yours in its place.</p>
      )}
      <button
        type="button"
        className="btn btn-outline-ink"
        onClick={() => onSave(differing.length > 0 ? merged(mine, theirs, differing.filter(isYours)) : mine)}
      >
        {differing.length > 0 ? 'Save it so' : 'Save mine in its place'}
      </button>{' '}
      <button type="button" className="btn btn-quiet" onClick={() => window.location.reload()}>
        Take theirs, drop mine
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
