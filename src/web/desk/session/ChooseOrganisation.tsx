import { at } from '../api'
import type { Membership } from '../types'
import { Door } from './Door'
import { t } from './words'

/** For whoever belongs to several organisations: which of them the address is about. */
export function ChooseOrganisation({ organisations }: { organisations: Membership[] }) {
  return (
    <Door>
      <h1>{t('whereTo')}</h1>
      {at !== '' && <p className="notice">{t('youDoNotBelongTo')}</p>}
      <ul className="organisations">
        {organisations.map((one) => (
          <li key={one.slug}>
            <a className="btn btn-outline-ink" href={screenOf(one)}>
              {one.name}
            </a>
          </li>
        ))}
      </ul>
    </Door>
  )
}

/** The screen of this address, in another organisation. */
export function screenOf(organisation: Membership): string {
  return `/at/${organisation.slug}${location.pathname.slice(at.length) || '/'}${location.search}`
}
