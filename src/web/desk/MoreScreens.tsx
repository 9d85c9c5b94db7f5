import Dropdown from 'react-bootstrap/Dropdown'
import { Link } from 'react-router'
import { ScreenSign } from './ScreenSign'
import { t } from './words'

/** On a phone: the screens that have no room below. What is seldom needed is in the menu of the account. */
export function MoreScreens({ isAdministrator, makesEvents }: { isAdministrator: boolean; makesEvents: boolean }) {
  return (
    <Dropdown drop="up" align="end" className="more-screens">
      <Dropdown.Toggle bsPrefix="way">
        <ScreenSign sign="more" />
        {t('more')}
      </Dropdown.Toggle>
      <Dropdown.Menu>
        {makesEvents && (
          <Dropdown.Item as={Link} to="/intake">
            {t('intake')}
          </Dropdown.Item>
        )}
        <Dropdown.Item as={Link} to="/year">
          {t('yearPlan')}
        </Dropdown.Item>
        {isAdministrator && (
          <Dropdown.Item as={Link} to="/people">
            {t('people')}
          </Dropdown.Item>
        )}
        <Dropdown.Item as={Link} to="/lately">
          {t('doneLately')}
        </Dropdown.Item>
        <Dropdown.Item as={Link} to="/bin">
          {t('bin')}
        </Dropdown.Item>
        <Dropdown.Item as={Link} to="/help">
          {t('help')}
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  )
}
