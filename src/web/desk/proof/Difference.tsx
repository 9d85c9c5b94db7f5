import { listed } from '../catalogue'
import type { ProofDifference } from '../types'
import { t } from './words'

const all = (shown: string[], more: number) => listed(more > 0 ? [...shown, t('andMore', { count: more })] : shown)

/** What an edition would be if something were otherwise, as items of a list. */
export function Difference({
  of: { entries, becomes, leave, moreLeave, arrive, moreArrive, gone, come },
}: {
  of: ProofDifference
}) {
  return (
    <>
      {entries !== becomes && <li>{t('settingEntries', { before: entries, count: becomes })}</li>}
      {leave.length + arrive.length === 0 && <li>{t('settingSame', { count: becomes })}</li>}
      {leave.length > 0 && <li>{t('leave', { entries: all(leave, moreLeave) })}</li>}
      {arrive.length > 0 && <li>{t('arrive', { entries: all(arrive, moreArrive) })}</li>}
      {gone.length > 0 && <li>{t('settingGone', { titles: listed(gone) })}</li>}
      {come.length > 0 && <li className="remark">{t('settingCome', { titles: listed(come) })}</li>}
    </>
  )
}

/** Readers would see it. */
export const differs = ({ leave, arrive, gone, come }: ProofDifference) =>
  [leave, arrive, gone, come].some((one) => one.length > 0)
