import { Link } from 'react-router'
import { useEditions } from '../editions/queries'
import type { EditionLine } from '../types'
import { t } from './words'

/** The way to the proof of an edition, with how much is wrong: what keeps something from readers, and what is to be looked at. */
export function ProofLink({ edition: { id, name, findings } }: { edition: EditionLine }) {
  const counts = findings === null ? [] : (['keepsFromReaders', 'toLookAt'] as const).filter((one) => findings[one] > 0)
  return (
    <Link to={`/editions/${id}/proof`} className="found-counts">
      <span className="visually-hidden">{t('proofOf', { name })}: </span>
      {counts.length === 0
        ? t(findings === null ? 'notLookedThrough' : 'nothingWrongShort')
        : counts.map((one) => (
            <span key={one} className="found-count">
              <i className={`severity severity-${one}`} aria-hidden="true" />
              {findings?.[one]} <span className="visually-hidden">{t(`severity_${one}`)}</span>
            </span>
          ))}
    </Link>
  )
}

/** The same of a calendar's own edition; nothing where nothing is wrong with it. */
export function ProofOfCalendar({ id }: { id: string }) {
  const edition = useEditions().data?.find((one) => one.calendarId === id)
  if (!edition?.mayEdit || !edition.findings || edition.findings.keepsFromReaders + edition.findings.toLookAt === 0) return null
  return <ProofLink edition={edition} />
}
