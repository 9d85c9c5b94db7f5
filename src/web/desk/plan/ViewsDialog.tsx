import { useState, type FormEvent } from 'react'
import Modal from 'react-bootstrap/Modal'
import { useLocation, useNavigate } from 'react-router'
import { useCalendars } from '../calendars/queries'
import { WhatWasRefused } from '../Field'
import { useOrganisation } from '../session/queries'
import { useToast } from '../Toasts'
import type { PlanViewKept } from '../types'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { foldsOf, putFolds } from './laneGroups'
import { usePlanViews } from './queries'
import { lastView, rememberView, searchOf, settingsOf } from './views'
import { t } from './words'

/** Ways to look at the plan: one's own, and those for all who edit. The one chosen last is where one comes back. */
export function ViewsDialog({ onHide }: { onHide: () => void }) {
  const views = usePlanViews(true)
  const { slug } = useOrganisation()
  const navigate = useNavigate()
  const day = new URLSearchParams(useLocation().search).get('day')
  const open = (view: PlanViewKept | null) => {
    rememberView(slug, view === null ? null : searchOf(view.settings))
    if (view?.settings.folds) putFolds(slug, view.settings.folds)
    onHide()
    // The days in sight stay the same.
    void navigate({ pathname: '/plan', search: searchOf({ ...view?.settings, ...(day && { day }) }) })
  }
  const all = views.data ?? []
  return (
    <Modal show onHide={onHide} aria-labelledby="views-title">
      <Modal.Body className="views">
        <h2 id="views-title">{t('views')}</h2>
        {views.error && (
          <p className="notice" role="alert">
            {views.error.message}
          </p>
        )}
        {views.data && all.length === 0 && <p className="soft">{t('noViewYet')}</p>}
        <ViewList title={t('yourOwn')} views={all.filter((one) => !one.isForAll)} open={open} />
        <ViewList title={t('forAllWhoEdit')} views={all.filter((one) => one.isForAll)} open={open} />
        {(all.length > 0 || lastView(slug) !== null) && (
          <button type="button" className="as-link" onClick={() => open(null)}>
            {t('asItIsAtFirst')}
          </button>
        )}
        <KeepView />
        <button type="button" className="btn btn-outline-ink" onClick={onHide}>
          {t('close')}
        </button>
      </Modal.Body>
    </Modal>
  )
}

interface ViewListProps {
  title: string
  views: PlanViewKept[]
  open: (view: PlanViewKept) => void
}

function ViewList({ title, views, open }: ViewListProps) {
  const write = useWrite()
  const { problem, post } = usePost()
  const { slug } = useOrganisation()
  const remove = (view: PlanViewKept) =>
    post(async () => {
      await write('DELETE', `/plan-views/${view.id}`)
      if (lastView(slug) === searchOf(view.settings)) rememberView(slug, null)
    })
  if (views.length === 0) return null
  return (
    <section>
      <h3>{title}</h3>
      <ul>
        {views.map((view) => (
          <li key={view.id}>
            <button type="button" className="as-link" onClick={() => open(view)}>
              {view.name}
            </button>
            {view.mayRemove && (
              <button
                type="button"
                className="view-remove"
                aria-label={t('removeView', { name: view.name })}
                onClick={() => void remove(view)}
              >
                ×
              </button>
            )}
          </li>
        ))}
      </ul>
      <WhatWasRefused problem={problem} fields={[]} />
    </section>
  )
}

/** The plan as it is looked at now, under a name. */
function KeepView() {
  const { search } = useLocation()
  const { slug } = useOrganisation()
  const mayShare = useCalendars().data?.some((one) => one.mayEdit) ?? false
  const [name, setName] = useState('')
  const [isForAll, setForAll] = useState(false)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const keep = (event: FormEvent) => {
    event.preventDefault()
    const settings = settingsOf(search, foldsOf(slug))
    void post(async () => {
      await write('POST', '/plan-views', { name, settings, isForAll })
      rememberView(slug, searchOf(settings))
      toast(t('viewIsKept', { name: name.trim() }))
      setName('')
    })
  }
  return (
    <form className="keep-view" onSubmit={keep} noValidate>
      <label htmlFor="view-name">{t('keepThisView')}</label>
      <span>
        <input
          id="view-name"
          className="form-control"
          maxLength={100}
          placeholder={t('itsName')}
          value={name}
          aria-invalid={problem?.on('name') !== undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="btn btn-spruce" disabled={isBusy || name.trim() === ''}>
          {t('keep')}
        </button>
      </span>
      {mayShare && (
        <label className="tick">
          <input type="checkbox" checked={isForAll} onChange={(event) => setForAll(event.target.checked)} /> {t('forAllWhoEdit')}
        </label>
      )}
      <WhatWasRefused problem={problem} fields={[]} />
    </form>
  )
}
