import type { FollowedSource } from '../types'
import { useOrganisation } from '../session/queries'
import { useAttempt, useWrite } from '../useWrite'
import { saySince } from '../work/failures'
import { t } from './words'

/** What it says now is not believed by itself: somebody says whether it is meant. */
export function HeldBack({ source, held }: { source: FollowedSource; held: NonNullable<FollowedSource['held']> }) {
  const write = useWrite()
  const attempt = useAttempt()
  const organisation = useOrganisation()
  const decide = (isTaken: boolean) => void attempt(() => write('PUT', `/sources/${source.id}/held`, { isTaken }))
  return (
    <div className="notice source-held" role="alert">
      <p>
        {t(`held_${held.because}`, {
          time: saySince(held.at, organisation),
          before: held.before,
          now: held.now,
          gone: held.gone,
        })}{' '}
        {t('whatStandsStays')}
      </p>
      <button type="button" className="btn btn-outline-ink" onClick={() => decide(true)}>
        {t('takeItAllTheSame')}
      </button>{' '}
      <button type="button" className="btn btn-outline-ink" onClick={() => decide(false)}>
        {t('keepWhatStands')}
      </button>
    </div>
  )
}
