import Dropdown from 'react-bootstrap/Dropdown'
import { Link, useNavigate } from 'react-router'
import { call } from './api'
import { useRefresh } from './refresh'
import { seeAs } from './seeAs'
import type { Session } from './types'
import { t } from './words'

interface AccountMenuProps {
  session: Session
  person: NonNullable<Session['person']>
}

/** What is one's own, and what is seldom needed. */
export function AccountMenu({ session, person }: AccountMenuProps) {
  const navigate = useNavigate()
  const refresh = useRefresh()
  const others = session.organisations.filter((one) => one.slug !== session.organisation?.slug)
  const initials = person.name
    .split(' ')
    .map((word) => word[0])
    .join('')
    .slice(0, 2)
  const signOut = async () => {
    await call('DELETE', '/session')
    seeAs(null)
    await navigate('/plan')
    await refresh.forgetAll()
  }
  return (
    <Dropdown align="end">
      <Dropdown.Toggle className="initials" aria-label={t('nameAccount', { name: person.name })}>
        {initials}
      </Dropdown.Toggle>
      <Dropdown.Menu>
        <Dropdown.Header>
          {person.name}
          <br />
          {person.email}
        </Dropdown.Header>
        {others.length > 0 && <Dropdown.Divider />}
        {others.map((one) => (
          <Dropdown.Item key={one.slug} href={`/at/${one.slug}/plan`}>
            {t('toName', { name: one.name })}
          </Dropdown.Item>
        ))}
        {others.length > 0 && <Dropdown.Divider />}
        <Dropdown.Item as={Link} to="/account">
          {t('yourAccount')}
        </Dropdown.Item>
        <Dropdown.Item as={Link} to="/lists">
          {t('categoriesAndPlaces')}
        </Dropdown.Item>
        {person.isAdministrator && (
          <Dropdown.Item as={Link} to="/work">
            {t('whatHasNotGoneOut')}
          </Dropdown.Item>
        )}
        <Dropdown.Item as="button" onClick={signOut}>
          {t('signOut')}
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  )
}
