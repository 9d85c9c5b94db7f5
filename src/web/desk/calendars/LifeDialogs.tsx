import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { Plate } from '../../shared/Plate'
import { call } from '../api'
import type { Calendar } from '../types'
import { useUndo } from '../changes/Changes'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { kinds, Losing, sayPrograms } from './WhatFollows'
import { t } from './words'

/** Says what removing takes away, and does it. */
export function RemoveDialog({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const preview = useQuery({
    queryKey: ['calendars', calendar.id, 'removal'],
    queryFn: () => call('GET', `/calendars/${calendar.id}/removal`),
  }).data
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const bringBack = async () => {
    await write('POST', `/calendars/${calendar.id}/restore`)
    toast(t('nameIsBack', { name: calendar.name }))
  }
  const remove = () =>
    post(async () => {
      await write('DELETE', `/calendars/${calendar.id}`)
      toast(t('nameIsRemovedItRests', { name: calendar.name }), bringBack)
      onClose()
    })
  return (
    <Modal show onHide={onClose} aria-labelledby="remove-title">
      <Modal.Body>
        <h2 id="remove-title">{t('removeName', { name: calendar.name })}</h2>
        {preview && (
          <ul className="what-follows">
            <li>{preview.events === 0 ? t('itHoldsNoEvents') : t('eventsGoWithIt', { count: preview.events })}</li>
            {preview.elsewhere > 0 && <li>{t.rich('elsewhereOfTheseAreShown', { count: preview.elsewhere }, <b />)}</li>}
            {preview.empties.map(({ what, programs }) => (
              <li key={what}>{t('itsKindWillBeGone', { kind: kinds[what] ?? what, programs: sayPrograms(programs) })}</li>
            ))}
            <Losing editions={preview.editions} />
          </ul>
        )}
        <p>{t('itRestsInTheBin')}</p>
        {problem && <p className="refusal">{problem.message}</p>}
        <button type="button" className="btn btn-brick" disabled={isBusy || !preview} onClick={remove}>
          {t('removeIt')}
        </button>{' '}
        <button type="button" className="btn btn-quiet" autoFocus onClick={onClose}>
          {t('leaveIt')}
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
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()
  const merge = () =>
    post(async () => {
      const done = await write('POST', `/calendars/${calendar.id}/merge`, { into })
      toast(t('nameIsPartOfTarget', { name: calendar.name, target: target?.name }), () => undo(done.actId))
      onClose()
    })
  return (
    <Modal show onHide={onClose} aria-labelledby="merge-title">
      <Modal.Body>
        <h2 id="merge-title">{t('mergeNameIntoAnotherCalendar', { name: calendar.name })}</h2>
        <div className="calendar-choice" role="radiogroup" aria-label={t('intoWhich')}>
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
            <li>{t('eventsGetNameAsTheir', { count: preview.moves, name: target.name })}</li>
            {preview.places > 0 && <li>{t('eventsOfOtherCalendarsThat', { count: preview.places, name: target.name })}</li>}
            {preview.newlySees.length > 0 && (
              <li>
                <b>{t('moreIsSeenThere')}</b> {preview.newlySees.join('; ')}.
              </li>
            )}
            {preview.seesLess.length > 0 && <li>{t('lessIsSeenThere', { seesLess: preview.seesLess.join('; ') })}</li>}
            <li>{t('itsOwnAddressesLeadTo', { name: target.name })}</li>
          </ul>
        )}
        {problem && <p className="refusal">{problem.message}</p>}
        <p className="popup-acts">
          <button type="button" className="btn btn-spruce" disabled={isBusy || !preview} onClick={merge}>
            {t('merge')}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onClose}>
            {t('leaveIt')}
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}
