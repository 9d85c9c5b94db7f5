import { useRefresh } from './refresh'
import { seeAs, useSeenAs, type SeenAs } from './seeAs'
import { t } from './words'

export const seenAsWords: Record<SeenAs, { choice: string; as: string }> = {
  members: { choice: t('aMember'), as: t('aMemberWhoKeepsNothing') },
  link: { choice: t('someoneWithTheLink'), as: t('someoneWithTheSecretLink') },
  everyone: { choice: t('everyone'), as: t('everyone') },
}

export function useSeeAs() {
  const refresh = useRefresh()
  return (audience: SeenAs | null) => {
    seeAs(audience)
    void refresh.asOthers()
  }
}

/** Says on every screen that it is another's view, with the way back. */
export function SeenAsNotice() {
  const seen = useSeenAs()
  const choose = useSeeAs()
  if (!seen) return null
  return (
    <div className="seen-as" role="status">
      <span>{t.rich('youSeeThisAs', { as: seenAsWords[seen].as }, <b />)}</span>
      <button type="button" className="btn btn-outline-ink" onClick={() => choose(null)}>
        {t('backToYourOwnView')}
      </button>
    </div>
  )
}
