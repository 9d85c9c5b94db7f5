import { Link } from 'react-router'
import { t } from './words'

export function NothingHere({ detail = t('thereIsNoScreenAt') }: { detail?: string }) {
  return (
    <main className="page">
      <h1>{t('nothingHere')}</h1>
      <p>{detail}</p>
      <p>
        <Link to="/plan">{t('backToThePlan')}</Link>
      </p>
    </main>
  )
}
