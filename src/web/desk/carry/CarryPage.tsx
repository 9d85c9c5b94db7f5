import { Link, useSearchParams } from 'react-router'
import { todayIn } from '../../shared/days'
import { useOrganisation } from '../session/queries'
import type { YearPlan } from '../types'
import { useYearPlans } from '../year/queries'
import { CarryTable } from './CarryTable'
import { t } from './words'

/** A year's events made once more in the next: chosen and corrected in a table, then one save. */
export function CarryPage() {
  const { zone } = useOrganisation()
  const plans = useYearPlans()
  const [parameters, setParameters] = useSearchParams()
  if (plans.error)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {plans.error.message}
        </p>
      </main>
    )
  if (!plans.data) return <p className="page">{t('opening')}</p>
  const all = [...plans.data.plans].sort((one, other) => one.first.localeCompare(other.first))
  const { from, into } = chosen(all, parameters, todayIn(zone))
  const put = (name: 'from' | 'into', id: string) =>
    setParameters((before) => new URLSearchParams([...[...before].filter(([key]) => key !== name), [name, id]]))
  if (!from || !into) return <NoNextYear from={from} mayEdit={plans.data.mayEdit} />
  return (
    <CarryTable key={`${from.id} ${into.id}`} from={from} into={into}>
      <YearChoice
        label={t('fromYear')}
        plans={all.filter((one) => one !== all.at(-1))}
        value={from}
        put={(id) => put('from', id)}
      />
      <YearChoice
        label={t('intoYear')}
        plans={all.filter((one) => one.first > from.first)}
        value={into}
        put={(id) => put('into', id)}
      />
    </CarryTable>
  )
}

/** What the address says; else this year and the one after it, or where there is none, the last two. */
function chosen(plans: YearPlan[], parameters: URLSearchParams, today: string) {
  const named = (name: string) => plans.find((one) => one.id === parameters.get(name))
  const now = plans.find((one) => one.first <= today && today <= one.last)
  const from = named('from') ?? (now && now !== plans.at(-1) ? now : plans.at(-2)) ?? plans.at(-1)
  const after = plans.filter((one) => from && one.first > from.first)
  return { from, into: after.find((one) => one === named('into')) ?? after[0] }
}

function YearChoice(props: { label: string; plans: YearPlan[]; value: YearPlan; put: (id: string) => void }) {
  if (props.plans.length < 2) return null
  return (
    <label className="carry-year">
      {props.label}{' '}
      <select className="form-select" value={props.value.id} onChange={(event) => props.put(event.target.value)}>
        {props.plans.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  )
}

function NoNextYear({ from, mayEdit }: { from: YearPlan | undefined; mayEdit: boolean }) {
  return (
    <main className="page">
      <h1>{t('carryAYearForward')}</h1>
      <div className="empty">
        <p>{from ? t('noYearAfter', { year: from.name }) : t('noYearAtAll')}</p>
        {mayEdit && (
          <Link className="btn btn-spruce" to="/year">
            {t('toTheYearPlan')}
          </Link>
        )}
      </div>
    </main>
  )
}
