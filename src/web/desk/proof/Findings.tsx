import { useState, type FormEvent } from 'react'
import { sayDay, todayIn } from '../../shared/days'
import { sayAgo } from '../Delivery'
import { useOrganisation } from '../session/queries'
import type { Finding, Proof } from '../types'
import { usePost } from '../usePost'
import { useAttempt, useWrite } from '../useWrite'
import { Remedies } from './Remedies'
import { t } from './words'

/** How much is wrong, by how much it matters, and all of it, the worst first. */
export function Findings({ proof }: { proof: Proof }) {
  const [showsPutOff, setShowsPutOff] = useState(false)
  const open = proof.findings.filter((one) => !one.putOff)
  const putOff = proof.findings.filter((one) => one.putOff)
  return (
    <section className="proof-findings" aria-label={t('whatIsWrong')}>
      <h2 className="visually-hidden">{t('whatIsWrong')}</h2>
      {open.length === 0 ? (
        <p className="nothing-wrong">
          <b>{t('nothingIsWrong')}</b> <span className="soft">{t('nothingIsWrongAbout', { count: proof.kinds })}</span>
        </p>
      ) : (
        <Counts findings={proof.findings} />
      )}
      <ul className="findings">
        {[...open, ...(showsPutOff ? putOff : [])].map((one) => (
          <FindingRow key={one.kind + one.about} finding={one} proof={proof} />
        ))}
      </ul>
      {putOff.length > 0 && (
        <button type="button" className="as-link" aria-expanded={showsPutOff} onClick={() => setShowsPutOff(!showsPutOff)}>
          {showsPutOff ? t('hidePutOff') : t('showPutOff', { count: putOff.length })}
        </button>
      )}
    </section>
  )
}

function Counts({ findings }: { findings: Finding[] }) {
  const count = (severity: Finding['severity']) => findings.filter((one) => one.severity === severity && !one.putOff).length
  const counts = [
    { count: count('keepsFromReaders'), words: 'keepFromReaders' },
    { count: count('toLookAt'), words: 'toLookAt' },
    { count: count('forInformation'), words: 'forInformation' },
    { count: findings.filter((one) => one.putOff).length, words: 'putOff' },
  ] as const
  return (
    <p className="finding-counts">
      {counts
        .filter((one) => one.count > 0)
        .map((one) => (
          <span key={one.words}>
            <b>{one.count}</b> {t(one.words, { count: one.count })}
          </span>
        ))}
    </p>
  )
}

function FindingRow({ finding, proof }: { finding: Finding; proof: Proof }) {
  const { locale, zone } = useOrganisation()
  const [isAsking, setAsking] = useState(false)
  const write = useWrite()
  const attempt = useAttempt()
  const takeUp = () =>
    attempt(() =>
      write('POST', `/editions/${proof.id}/proof/put-off`, { kind: finding.kind, about: finding.about, reason: null }),
    )
  const since =
    finding.since &&
    finding.since.slice(0, 10) < todayIn(zone) &&
    t('since', { day: sayDay(finding.since.slice(0, 10), locale, { day: 'numeric', month: 'long' }) })
  return (
    <li className={finding.putOff ? 'finding is-put-off' : 'finding'}>
      <i className={`severity severity-${finding.severity}`} role="img" aria-label={t(`severity_${finding.severity}`)} />
      <div className="finding-said">
        <h3>{finding.title}</h3>
        <p className="soft">{finding.text}</p>
        {finding.putOff && (
          <p className="soft">
            {t('putOffBy', { by: finding.putOff.by, ago: sayAgo(finding.putOff.at), reason: finding.putOff.reason })}
          </p>
        )}
      </div>
      <div className="finding-ways">
        <Remedies remedies={finding.remedies} about={finding.title} proof={proof} />
        {finding.putOff ? (
          <button type="button" className="as-link" onClick={() => void takeUp()}>
            {t('takeItUp')}
          </button>
        ) : (
          !isAsking && (
            <button type="button" className="as-link" onClick={() => setAsking(true)}>
              {t('putItOff')}
            </button>
          )
        )}
        <span className="soft finding-where">{[finding.where, since].filter(Boolean).join(' · ')}</span>
      </div>
      {isAsking && <PutOff finding={finding} editionId={proof.id} onLeave={() => setAsking(false)} />}
    </li>
  )
}

function PutOff({ finding, editionId, onLeave }: { finding: Finding; editionId: string; onLeave: () => void }) {
  const [reason, setReason] = useState('')
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const save = (event: FormEvent) => {
    event.preventDefault()
    void post(async () => {
      await write('POST', `/editions/${editionId}/proof/put-off`, { kind: finding.kind, about: finding.about, reason })
      onLeave()
    })
  }
  return (
    <form className="put-off" onSubmit={save} noValidate>
      <label>
        {t('whyPutOff')}
        <input
          className="form-control"
          autoFocus
          maxLength={200}
          value={reason}
          aria-invalid={problem?.on('reason') !== undefined}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <button type="submit" className="btn btn-outline-ink" disabled={isBusy}>
        {t('putItOffNow')}
      </button>
      <button type="button" className="btn btn-quiet" onClick={onLeave}>
        {t('leaveItOpen')}
      </button>
      {problem && (
        <span className="refusal" role="alert">
          {problem.on('reason') ?? problem.message}
        </span>
      )}
    </form>
  )
}
