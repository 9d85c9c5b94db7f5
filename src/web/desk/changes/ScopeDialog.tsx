import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import type { ChangePreview, ChangeRequest } from '../api'
import { sayAsked } from './Changes'
import { Differences } from './Differences'

type Scope = NonNullable<ChangeRequest['scope']>
type ScopePreview = ChangePreview['scopes'][number]

interface ScopeDialogProps {
  act: ChangeRequest['act']
  /** The scope to begin with. */
  meant?: Scope
  preview: ChangePreview
  onChoose: (scope: Scope, keep: string[]) => Promise<void>
  onLeave: () => void
}

const titles: Record<ChangeRequest['act'], string> = {
  edit: 'Which dates is this for?',
  cancel: 'Cancel which dates?',
  remove: 'Remove which dates?',
  restore: 'Restore which dates?',
}

const verbs: Record<ChangeRequest['act'], string> = { edit: 'Change', cancel: 'Cancel', remove: 'Remove', restore: 'Restore' }

/** What a change would do in each scope, and the choice. */
export function ScopeDialog({ act, meant, preview, onChoose, onLeave }: ScopeDialogProps) {
  const possible = preview.scopes.filter((scope) => scope.reason === null)
  const [scope, setScope] = useState<Scope | undefined>((possible.find((one) => one.scope === meant) ?? possible[0])?.scope)
  const [keep, setKeep] = useState<string[]>([])
  const [isMaking, setMaking] = useState(false)
  const chosen = preview.scopes.find((one) => one.scope === scope)
  const make = async () => {
    if (!scope) return
    setMaking(true)
    await onChoose(
      scope,
      keep.filter((id) => chosen?.lost.some((lost) => lost.recurrenceId === id)),
    )
  }
  return (
    <Modal show onHide={onLeave} size="lg" aria-labelledby="scope-title">
      <Modal.Body className="scope-dialog">
        <h2 id="scope-title">{preview.hasChoice ? titles[act] : 'Before you save'}</h2>
        <p>
          <b>{preview.title}</b>, {preview.seen}
        </p>
        <Differences differences={preview.differences} />
        {preview.newlySees.length > 0 && (
          <div className="remark">
            <b>Newly seen by</b>
            <ul>
              {preview.newlySees.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </div>
        )}
        {preview.asksFor.length > 0 && <p className="remark">{sayAsked(preview.asksFor)}</p>}
        {preview.waits && (
          <p className="remark">It waits until an editor has approved it. What is out stays as it is until then.</p>
        )}
        <div className="scopes" role="radiogroup" aria-labelledby="scope-title" hidden={!preview.hasChoice}>
          {preview.scopes.map((one) => (
            <ScopeOption
              key={one.scope}
              act={act}
              preview={one}
              isChosen={one.scope === scope}
              onChoose={() => setScope(one.scope)}
            />
          ))}
        </div>
        {chosen && chosen.lost.length > 0 && act !== 'remove' && <Lost lost={chosen.lost} keep={keep} onKeep={setKeep} />}
        {chosen && chosen.lost.length > 0 && act === 'remove' && (
          <p className="remark">Of these, differing from the series: {chosen.lost.map((lost) => lost.words).join('; ')}.</p>
        )}
        <p className="scope-acts">
          <button
            type="button"
            className={`btn ${act === 'remove' || act === 'cancel' ? 'btn-brick' : 'btn-spruce'}`}
            disabled={!scope || isMaking}
            onClick={make}
          >
            {isMaking
              ? 'Saving …'
              : preview.waits
                ? `Hand in: ${sayScope(chosen)}`
                : preview.hasChoice
                  ? `${verbs[act]} ${sayScope(chosen)}`
                  : 'Save'}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onLeave}>
            Leave it as it is
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}

function sayScope(scope: ScopePreview | undefined): string {
  if (!scope) return ''
  if (scope.scope === 'this') return 'this date'
  const count = scope.count === null ? '' : scope.count === 1 ? '1 date' : `${scope.count} dates`
  return scope.scope === 'later' ? `this and later: ${count || 'without end'}` : count ? `all ${count}` : 'every date'
}

const names: Record<Scope, string> = { this: 'Only this date', later: 'This date and later', every: 'Every date' }

interface ScopeOptionProps {
  act: ChangeRequest['act']
  preview: ScopePreview
  isChosen: boolean
  onChoose: () => void
}

function ScopeOption({ act, preview, isChosen, onChoose }: ScopeOptionProps) {
  const { scope, reason, count, dates, kept, moved } = preview
  return (
    <label className={`scope ${isChosen ? 'is-chosen' : ''} ${reason ? 'is-impossible' : ''}`}>
      <input type="radio" name="scope" checked={isChosen} disabled={reason !== null} onChange={onChoose} />
      <span>
        <b>{names[scope]}</b>
        {reason ? (
          <span className="soft"> {reason}</span>
        ) : (
          <>
            {scope !== 'this' && (
              <span>
                {' '}
                – {count === null ? 'without end' : count === 1 ? '1 date' : `${count} dates`}
                {scope === 'later' && act === 'edit' && ', which become a series of their own'}
              </span>
            )}
            <span className="scope-dates">
              {dates.join(' · ')}
              {count !== null && count > dates.length && ` · … ${count - dates.length} more`}
              {count === null && ' · …'}
            </span>
            {scope !== 'this' && <Differing title="Keep what is their own" dates={kept} />}
            <Differing title="Move along" dates={moved} />
          </>
        )}
      </span>
    </label>
  )
}

/** Dates that differ from their series, and what becomes of them. */
function Differing({ title, dates }: { title: string; dates: string[] }) {
  if (dates.length === 0) return null
  return (
    <span className="soft">
      {title}: {dates.slice(0, 4).join('; ')}
      {dates.length > 4 && ` and ${dates.length - 4} more`}
    </span>
  )
}

interface LostProps {
  lost: ScopePreview['lost']
  keep: string[]
  onKeep: (keep: string[]) => void
}

/** Dates that differ and that the changed series does not have: each is kept as a date of its own, or dropped. */
function Lost({ lost, keep, onKeep }: LostProps) {
  return (
    <fieldset className="lost">
      <legend>
        {lost.length === 1 ? 'One date that differs loses its place' : `${lost.length} dates that differ lose their place`}
      </legend>
      {lost.map(({ recurrenceId, words }) => (
        <div key={recurrenceId} className="lost-line">
          <span>{words}</span>
          <span className="joined" role="group" aria-label={words}>
            <button type="button" aria-pressed={keep.includes(recurrenceId)} onClick={() => onKeep([...keep, recurrenceId])}>
              Keep as an extra date
            </button>
            <button
              type="button"
              aria-pressed={!keep.includes(recurrenceId)}
              onClick={() => onKeep(keep.filter((id) => id !== recurrenceId))}
            >
              Drop
            </button>
          </span>
        </div>
      ))}
    </fieldset>
  )
}
