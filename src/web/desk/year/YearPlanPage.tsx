import { useState } from 'react'
import { Link } from 'react-router'
import { addDays, daysBetween, todayIn } from '../../shared/days'
import { Problem } from '../Problem'
import { call } from '../api'
import type { YearPlan, YearPlanRequest } from '../types'
import { useWrite } from '../useWrite'
import { useOrganisation } from '../session/queries'
import { useYearPlans } from './queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { YearForm } from './YearForm'
import { t } from './words'

/** Terms, breaks and the day cycle, year by year. */
export function YearPlanPage() {
  const { zone, yearStartsIn } = useOrganisation()
  const plans = useYearPlans()
  const today = todayIn(zone)
  const [chosen, setChosen] = useState<string | null>(null)
  const [proposed, setProposed] = useState<YearPlanRequest | null>(null)
  const toast = useToast()
  if (plans.error)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {plans.error.message}
        </p>
      </main>
    )
  if (!plans.data) return <p className="page">{t('opening')}</p>
  const all = plans.data.plans
  const current =
    all.find((plan) => plan.id === chosen) ?? all.find((plan) => plan.first <= today && today <= plan.last) ?? all[0]
  const copy = async (plan: YearPlan) => {
    try {
      setProposed(await call('POST', `/year-plans/${plan.id}/next`))
    } catch (failed) {
      toast(failed instanceof Problem ? failed.message : String(failed))
    }
  }
  const start = `${today.slice(0, 4)}-${String(yearStartsIn).padStart(2, '0')}-01`
  const first = start <= today ? start : `${Number(today.slice(0, 4)) - 1}${start.slice(4)}`
  const fresh = (): YearPlanRequest => ({
    name: `${first.slice(0, 4)}/${String((Number(first.slice(0, 4)) + 1) % 100).padStart(2, '0')}`,
    first,
    last: addDays(`${Number(first.slice(0, 4)) + 1}${first.slice(4)}`, -1),
    terms: [],
    breaks: [],
    cycle: null,
    version: null,
  })
  return (
    <main className="page year-plan">
      <div className="page-head">
        <h1>{t('yearPlan')}</h1>
        <span className="joined" role="group" aria-label={t('year')}>
          {all.map((plan) => (
            <button
              key={plan.id}
              type="button"
              aria-pressed={!proposed && plan.id === current?.id}
              onClick={() => (setProposed(null), setChosen(plan.id))}
            >
              {plan.name}
            </button>
          ))}
          {proposed && (
            <button type="button" aria-pressed="true">
              {proposed.name || t('newYear')}
            </button>
          )}
        </span>
        <span className="stretch" />
        {current && (
          <Link className="btn btn-outline-ink" to={`/plan/sheet?day=${middleOf(current)}`}>
            {t('onOneSheet')}
          </Link>
        )}
        {current && all.some((plan) => plan.first > current.first) && (
          <Link className="btn btn-outline-ink" to={`/year/carry?from=${current.id}`}>
            {t('carryItsEvents')}
          </Link>
        )}
        {plans.data.mayEdit && !proposed && current && (
          <button type="button" className="btn btn-outline-ink" onClick={() => copy(current)}>
            {t('copyToTheNextYear')}
          </button>
        )}
      </div>
      {!current && !proposed && (
        <div className="empty">
          <h2>{t('thereIsNoYearPlan')}</h2>
          <p>{t('itSaysWhenTheTerms')}</p>
          {plans.data.mayEdit && (
            <button type="button" className="btn btn-spruce" onClick={() => setProposed(fresh())}>
              {t('makeTheFirst')}
            </button>
          )}
        </div>
      )}
      {proposed ? (
        <YearForm
          key="new"
          id={null}
          start={proposed}
          mayEdit
          cycleDays={[]}
          onDone={(id) => (setProposed(null), setChosen(id))}
          onLeave={() => setProposed(null)}
        />
      ) : (
        current && (
          <YearForm
            key={current.id}
            id={current.id}
            start={current}
            mayEdit={plans.data.mayEdit}
            cycleDays={current.cycleDays}
            onDone={setChosen}
            onLeave={null}
          />
        )
      )}
    </main>
  )
}

/**
 * Saving and removing a year, with the way back.
 * @param before The year as it is stored; null for a new one.
 */
export function useYearActs(
  id: string | null,
  before: YearPlanRequest | null,
  onSaved: (plan: YearPlan) => void,
  onDone: (id: string | null) => void,
) {
  const { problem, isBusy: isSaving, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  /** @param saved What stands there now; null when it was removed. */
  const takeBack = async (saved: YearPlan | null) => {
    if (saved && before) await write('PUT', `/year-plans/${saved.id}`, { ...before, version: saved.version })
    else if (saved) await write('DELETE', `/year-plans/${saved.id}?version=${saved.version}`)
    else if (before) await write('POST', '/year-plans', before)
    toast(t('theYearPlanIsAs'))
  }
  return {
    problem,
    isSaving,
    save: (request: YearPlanRequest) =>
      post(async () => {
        const saved = id ? await write('PUT', `/year-plans/${id}`, request) : await write('POST', '/year-plans', request)
        onSaved(saved)
        toast(t('theYearPlanNameIs', { name: saved.name }), () => takeBack(saved))
        onDone(saved.id)
      }),
    remove: (version: number) =>
      post(async () => {
        await write('DELETE', `/year-plans/${id}?version=${version}`)
        toast(t('theYearPlanIsRemoved'), () => takeBack(null))
        onDone(null)
      }),
  }
}

/** A day that is in the year whichever month the organisation's own years begin in. */
const middleOf = (plan: YearPlan) => addDays(plan.first, Math.floor(daysBetween(plan.first, plan.last) / 2))
