import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import type { ChangePreview, ChangeRequest } from '../types'
import { sayAsked } from './Changes'
import { Differences } from './Differences'
import { t } from './words'

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
  edit: t('whichDatesIsThisFor'),
  cancel: t('cancelWhichDates'),
  remove: t('removeWhichDates'),
  restore: t('restoreWhichDates'),
}

const verbs = { edit: 'changeScope', cancel: 'cancelScope', remove: 'removeScope', restore: 'restoreScope' } as const

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
        <h2 id="scope-title">{preview.hasChoice ? titles[act] : t('beforeYouSave')}</h2>
        <p>
          <b>{preview.title}</b>, {preview.seen}
        </p>
        <Differences differences={preview.differences} />
        {preview.newlySees.length > 0 && (
          <div className="remark">
            <b>{t('newlySeenBy')}</b>
            <ul>
              {preview.newlySees.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </div>
        )}
        {preview.asksFor.length > 0 && <p className="remark">{sayAsked(preview.asksFor)}</p>}
        {preview.waits && <p className="remark">{t('itWaitsUntilAnEditor')}</p>}
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
          <p className="remark">{t('ofTheseDifferingFromThe', { lost: chosen.lost.map((lost) => lost.words).join('; ') })}</p>
        )}
        <p className="scope-acts">
          <button
            type="button"
            className={`btn ${act === 'remove' || act === 'cancel' ? 'btn-brick' : 'btn-spruce'}`}
            disabled={!scope || isMaking}
            onClick={make}
          >
            {isMaking
              ? t('saving')
              : preview.waits
                ? t('handInScope', { scope: sayScope(chosen) })
                : preview.hasChoice
                  ? t(verbs[act], { scope: sayScope(chosen) })
                  : t('save')}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onLeave}>
            {t('leaveItAsItIs')}
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}

function sayScope(scope: ScopePreview | undefined): string {
  if (!scope) return ''
  if (scope.scope === 'this') return t('thisDate')
  const { count } = scope
  if (scope.scope === 'later') return count === null ? t('thisAndLaterWithoutEnd') : t('thisAndLater', { count })
  return count === null ? t('everyDate') : t('allDates', { count })
}

const names: Record<Scope, string> = { this: t('onlyThisDate'), later: t('thisDateAndLater'), every: t('everyDateHead') }

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
                – {count === null ? t('withoutEnd') : t('dates', { count })}
                {scope === 'later' && act === 'edit' && t('whichBecomeASeriesOf')}
              </span>
            )}
            <span className="scope-dates">
              {dates.join(' · ')}
              {count !== null && count > dates.length && ` · … ${t('countMore', { count: count - dates.length })}`}
              {count === null && ' · …'}
            </span>
            {scope !== 'this' && <Differing title={t('keepWhatIsTheirOwn')} dates={kept} />}
            <Differing title={t('moveAlong')} dates={moved} />
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
      {dates.length > 4 && ` ${t('andCountMore', { count: dates.length - 4 })}`}
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
      <legend>{t('datesThatDifferLoseTheir', { count: lost.length })}</legend>
      {lost.map(({ recurrenceId, words }) => (
        <div key={recurrenceId} className="lost-line">
          <span>{words}</span>
          <span className="joined" role="group" aria-label={words}>
            <button type="button" aria-pressed={keep.includes(recurrenceId)} onClick={() => onKeep([...keep, recurrenceId])}>
              {t('keepAsAnExtraDate')}
            </button>
            <button
              type="button"
              aria-pressed={!keep.includes(recurrenceId)}
              onClick={() => onKeep(keep.filter((id) => id !== recurrenceId))}
            >
              {t('drop')}
            </button>
          </span>
        </div>
      ))}
    </fieldset>
  )
}
