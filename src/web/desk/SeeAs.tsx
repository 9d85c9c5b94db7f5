import Dropdown from 'react-bootstrap/Dropdown'
import { useSeenAs, type SeenAs } from './seeAs'
import { seenAsWords, useSeeAs } from './SeenAsNotice'
import { t } from './words'

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
