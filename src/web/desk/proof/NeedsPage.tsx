import { Link } from 'react-router'
import type { ReactNode } from 'react'
import { useTargets } from '../elsewhere/queries'
import { useSources } from '../sources/queries'
import type { Need } from '../types'
import { useNeeds } from './queries'
import { t } from './words'

/** All that is open to a person: what is wrong with their editions, what they decide, what asks them. */
export function NeedsPage() {
  const needs = useNeeds(true)
  const sources = (useSources().data ?? []).filter((one) => one.health === 'held' || one.health === 'failing')
  const elsewhere = (useTargets().data ?? []).filter((one) => one.health === 'asks' || one.health === 'failing')
  if (needs.error && !needs.data)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {needs.error.message}
        </p>
      </main>
    )
  if (!needs.data) return <p className="page">{t('opening')}</p>
  const { findings, more, counts, toDecide, failing } = needs.data
  const isNothing = findings.length + toDecide + sources.length + elsewhere.length + failing === 0
  return (
    <main className="page needs-page">
      <div className="page-head">
        <h1>{t('whatNeedsMe')}</h1>
        <span className="soft">{t('whatNeedsMeAbout')}</span>
      </div>
      {isNothing && <p className="empty">{t('nothingNeedsYou')}</p>}
      <ul className="findings">
        {failing > 0 && (
          <Open severity="keepsFromReaders" title={t('failing', { count: failing })}>
            <Link className="btn btn-outline-ink" to="/work">
              {t('seeWhat')}
            </Link>
          </Open>
        )}
        {toDecide > 0 && (
          <Open severity="toLookAt" title={t('toDecide', { count: toDecide })}>
            <Link className="btn btn-outline-ink" to="/sign-off">
              {t('decide')}
            </Link>
          </Open>
        )}
        {sources.map((one) => (
          <Open
            key={one.id}
            severity="toLookAt"
            title={t('sourceAsks', { name: one.name })}
            text={one.health === 'held' ? t('sourceHeld') : one.problem}
          >
            <Link className="btn btn-outline-ink" to={`/intake/sources/${one.id}`}>
              {t('seeIt')}
              <span className="visually-hidden">: {one.name}</span>
            </Link>
          </Open>
        ))}
        {elsewhere.map((one) => (
          <Open
            key={one.id}
            severity="toLookAt"
            title={t('targetAsks', { name: one.name })}
            text={one.health === 'asks' ? t('changedThere', { count: one.asking }) : one.problem}
          >
            <Link className="btn btn-outline-ink" to={`/elsewhere/${one.id}`}>
              {t('seeIt')}
              <span className="visually-hidden">: {one.name}</span>
            </Link>
          </Open>
        ))}
        {findings.map((one) => (
          <Found key={`${one.editions[0]?.id} ${one.finding.kind} ${one.finding.about}`} need={one} />
        ))}
      </ul>
      {more > 0 && <p className="soft">{t('moreNeeds', { count: more })}</p>}
      {counts.forInformation > 0 && <p className="soft">{t('forInformationToo', { count: counts.forInformation })}</p>}
    </main>
  )
}

interface OpenProps {
  severity: Need['finding']['severity']
  title: string
  text?: string
  children: ReactNode
}

function Open({ severity, title, text = '', children }: OpenProps) {
  return (
    <li className="finding">
      <i className={`severity severity-${severity}`} role="img" aria-label={t(`severity_${severity}`)} />
      <div className="finding-said">
        <h2>{title}</h2>
        {text && <p className="soft">{text}</p>}
      </div>
      <div className="finding-ways">{children}</div>
    </li>
  )
}

/** More are behind a number. */
const NAMED = 3

function Found({ need: { finding, editions } }: { need: Need }) {
  const more = editions.length - NAMED
  return (
    <Open severity={finding.severity} title={finding.title} text={finding.text}>
      {editions.slice(0, NAMED).map((edition, index) => (
        <Link key={edition.id} className={index === 0 ? 'btn btn-outline-ink' : ''} to={`/editions/${edition.id}/proof`}>
          <span className="visually-hidden">{finding.title}: </span>
          {edition.name}
        </Link>
      ))}
      {more > 0 && <span className="soft finding-where">{t('moreNeeds', { count: more })}</span>}
    </Open>
  )
}
