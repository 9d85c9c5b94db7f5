import Dropdown from 'react-bootstrap/Dropdown'
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

/** In the bar of every screen: look at what is on it as others get it. */
export function SeeAsChoice() {
  const seen = useSeenAs()
  const choose = useSeeAs()
  return (
    <Dropdown align="end">
      <Dropdown.Toggle className="see-as">{t('seeAs')}</Dropdown.Toggle>
      <Dropdown.Menu>
        {(Object.keys(seenAsWords) as SeenAs[]).map((audience) => (
          <Dropdown.Item as="button" key={audience} active={seen === audience} onClick={() => choose(audience)}>
            {seenAsWords[audience].choice}
          </Dropdown.Item>
        ))}
        {seen && (
          <Dropdown.Item as="button" onClick={() => choose(null)}>
            {t('yourself')}
          </Dropdown.Item>
        )}
      </Dropdown.Menu>
    </Dropdown>
  )
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
