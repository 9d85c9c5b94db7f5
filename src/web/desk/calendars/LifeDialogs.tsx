import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { Plate } from '../../shared/Plate'
import { call, type Calendar } from '../api'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { Losing, sayPrograms } from './WhatFollows'

const events = (count: number) => (count === 1 ? '1 event' : `${count} events`)

/** Says what removing takes away, and does it. */
export function RemoveDialog({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const preview = useQuery({
    queryKey: ['calendars', calendar.id, 'removal'],
    queryFn: () => call('GET', `/calendars/${calendar.id}/removal`),
  }).data
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const bringBack = async () => {
    try {
      await call('POST', `/calendars/${calendar.id}/restore`)
      toast(`${calendar.name} is back.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
    await refresh.everything()
  }
  const remove = () =>
    post(async () => {
      await call('DELETE', `/calendars/${calendar.id}`)
      await refresh.everything()
      toast(`${calendar.name} is removed. It rests in the bin for 90 days.`, () => void bringBack())
      onClose()
    })
  return (
    <Modal show onHide={onClose} aria-labelledby="remove-title">
      <Modal.Body>
        <h2 id="remove-title">Remove {calendar.name}?</h2>
        {preview && (
          <ul className="what-follows">
            <li>{preview.events === 0 ? 'It holds no events.' : `${events(preview.events)} go with it.`}</li>
            {preview.elsewhere > 0 && (
              <li>
                <b>{preview.elsewhere} of these are shown on other calendars too, and go from there as well.</b> Move them to
                another home first if they should stay.
              </li>
            )}
            {preview.empties.map(({ what, programs }) => (
              <li key={what}>
                Its {what} will be gone: {sayPrograms(programs)}.
              </li>
            ))}
            <Losing editions={preview.editions} />
          </ul>
        )}
        <p>It rests in the bin for 90 days and can be restored from there, with all its events and addresses.</p>
        {problem && <p className="refusal">{problem.message}</p>}
        <button type="button" className="btn btn-brick" disabled={isBusy || !preview} onClick={remove}>
          Remove it
        </button>{' '}
        <button type="button" className="btn btn-quiet" autoFocus onClick={onClose}>
          Leave it
        </button>
      </Modal.Body>
    </Modal>
  )
}

/** Chooses the calendar that takes all in, and says who will see more or less of it there. */
export function MergeDialog({ calendar, others, onClose }: { calendar: Calendar; others: Calendar[]; onClose: () => void }) {
  const [into, setInto] = useState('')
  const target = others.find((one) => one.id === into)
  const preview = useQuery({
    queryKey: ['calendars', calendar.id, 'merge', into],
    queryFn: () => call('GET', `/calendars/${calendar.id}/merge?into=${into}`),
    enabled: into !== '',
  }).data
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const undo = async (actId: string) => {
    try {
      await call('POST', `/calendars/${calendar.id}/restore`)
      await call('POST', `/acts/${actId}/undo`)
      toast(`${calendar.name} is by itself again.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
    await refresh.everything()
  }
  const merge = () =>
    post(async () => {
      const done = await call('POST', `/calendars/${calendar.id}/merge`, { into })
      await refresh.everything()
      toast(`${calendar.name} is part of ${target?.name} now.`, () => void undo(done.actId))
      onClose()
    })
  return (
    <Modal show onHide={onClose} aria-labelledby="merge-title">
      <Modal.Body>
        <h2 id="merge-title">Merge {calendar.name} into another calendar</h2>
        <div className="calendar-choice" role="radiogroup" aria-label="Into which">
          {others.map((one) => (
            <label key={one.id} className={one.id === into ? 'is-chosen' : undefined}>
              <input
                type="radio"
                name="into"
                className="visually-hidden"
                checked={one.id === into}
                onChange={() => setInto(one.id)}
              />
              <Plate code={one.plate} colour={one.colour} /> <span>{one.name}</span>
            </label>
          ))}
        </div>
        {preview && target && (
          <ul className="what-follows">
            <li>
              {events(preview.moves)} get {target.name} as their home. They keep their identity, so subscribers get no doubles.
            </li>
            {preview.places > 0 && (
              <li>
                {events(preview.places)} of other calendars that are shown here will be shown on {target.name}.
              </li>
            )}
            {preview.newlySees.length > 0 && (
              <li>
                <b>More is seen there:</b> {preview.newlySees.join('; ')}.
              </li>
            )}
            {preview.seesLess.length > 0 && <li>Less is seen there: {preview.seesLess.join('; ')}.</li>}
            <li>Its own addresses lead to {target.name} from then on.</li>
          </ul>
        )}
        {problem && <p className="refusal">{problem.message}</p>}
        <p className="popup-acts">
          <button type="button" className="btn btn-spruce" disabled={isBusy || !preview} onClick={merge}>
            Merge
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onClose}>
            Leave it
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}
