import { lazy, Suspense } from 'react'
import { NavLink } from 'react-router'
import { ScreenSign, type Sign } from './ScreenSign'
import { t } from './words'

const MoreScreens = lazy(() => import('./MoreScreens').then(({ MoreScreens: shown }) => ({ default: shown })))

interface ScreensProps {
  isAdministrator: boolean
  signsOff: boolean
  /** How many submissions wait for them. */
  waiting: number
  /** How many things keep something from readers of their editions. */
  kept: number
}

/** The ways to the screens: in the bar, and on a phone below everything, the seldom ones behind "More". */
export function Screens({ isAdministrator, signsOff, waiting, kept }: ScreensProps) {
  return (
    <nav aria-label={t('screens')}>
      <Way to="/plan" sign="plan" name={t('plan')} />
      <Way to="/calendars" sign="calendars" name={t('calendars')} />
      <Way to="/editions" sign="editions" name={t('editions')}>
        {kept > 0 && (
          <span className="waiting-count">
            {kept}
            <span className="visually-hidden"> {t('keepThings', { count: kept })}</span>
          </span>
        )}
      </Way>
      {signsOff && <Way to="/intake" sign="intake" name={t('intake')} isSeldom />}
      <Way to="/year" sign="year" name={t('yearPlan')} isSeldom />
      {signsOff && (
        <Way to="/sign-off" sign="signOff" name={t('signOff')}>
          {waiting > 0 && (
            <span className="waiting-count">
              {waiting}
              <span className="visually-hidden"> {t('wait', { count: waiting })}</span>
            </span>
          )}
        </Way>
      )}
      {isAdministrator && <Way to="/people" sign="people" name={t('people')} isSeldom />}
      <Suspense fallback={null}>
        <MoreScreens isAdministrator={isAdministrator} makesEvents={signsOff} />
      </Suspense>
    </nav>
  )
}

interface WayProps {
  to: string
  sign: Sign
  name: string
  /** Behind "More" where there is little room. */
  isSeldom?: boolean
  children?: React.ReactNode
}

function Way({ to, sign, name, isSeldom = false, children }: WayProps) {
  return (
    <NavLink to={to} className={isSeldom ? 'way is-seldom' : 'way'}>
      <ScreenSign sign={sign} />
      <span>
        {name}
        {children}
      </span>
    </NavLink>
  )
}
