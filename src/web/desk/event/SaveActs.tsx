import { Link } from 'react-router'
import type { Day } from '../../shared/days'
import type { Calendar, CalendarEvent } from '../api'

interface SaveActsProps {
  stored: CalendarEvent | null
  /** The home that is chosen. */
  calendar: Calendar | undefined
  /** Saving approves what was handed in. */
  isApproval: boolean
  isSaving: boolean
  day: Day | null
  onSave: (isDraft: boolean) => void
  onAct: (act: 'cancel' | 'remove') => void
}

/** What can be done with the form: each button says what happens. */
export function SaveActs({ stored, calendar, isApproval, isSaving, day, onSave, onAct }: SaveActsProps) {
  const isOut = stored?.state === 'live' || stored?.state === 'cancelled'
  const mayEdit = calendar?.mayEdit ?? false
  const isDraft = stored?.state === 'draft'
  return (
    <div className="event-acts">
      {isDraft ? (
        <>
          <button type="submit" className="btn btn-outline-ink" disabled={isSaving}>
            Save as draft
          </button>
          <button type="button" className="btn btn-spruce" disabled={isSaving} onClick={() => onSave(false)}>
            {mayEdit ? 'Let it go out' : 'Hand in for sign-off'}
          </button>
        </>
      ) : (
        <>
          <button type="submit" className="btn btn-spruce" disabled={isSaving}>
            {isSaving ? 'Saving …' : sayAct({ stored, mayEdit, isApproval, isOut })}
          </button>
          {!isOut && (
            <button type="button" className="btn btn-outline-ink" disabled={isSaving} onClick={() => onSave(true)}>
              Save as draft
            </button>
          )}
        </>
      )}
      <Link className="btn btn-quiet" to={`/plan?day=${day}`}>
        Discard
      </Link>
      <span className="stretch" />
      {stored && (
        <>
          <Link
            className="btn btn-quiet"
            to={`/events/new?copy=${stored.id}&date=${encodeURIComponent(stored.recurrenceId)}`}
            title="A new event like this one"
          >
            Copy
          </Link>
          {isOut && stored.state !== 'cancelled' && (
            <button type="button" className="btn btn-outline-ink" onClick={() => onAct('cancel')}>
              Cancel {stored.recurs ? 'dates' : 'it'}
            </button>
          )}
          <button type="button" className="btn btn-brick" onClick={() => onAct('remove')}>
            Remove
          </button>
        </>
      )}
    </div>
  )
}

interface Situation {
  stored: CalendarEvent | null
  mayEdit: boolean
  isApproval: boolean
  isOut: boolean
}

function sayAct({ stored, mayEdit, isApproval, isOut }: Situation): string {
  if (isApproval) return 'Save and approve'
  if (stored?.state === 'waiting') return mayEdit ? 'Save and approve' : 'Save; it goes on waiting'
  if (mayEdit) return 'Save'
  return isOut ? 'Hand in the change' : 'Hand in for sign-off'
}
