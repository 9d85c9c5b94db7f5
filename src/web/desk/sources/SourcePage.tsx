import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useLeaveGuard } from '../LeaveGuard'
import { NothingHere } from '../NothingHere'
import type { FollowedSource, SourceRules } from '../types'
import { usePost } from '../usePost'
import { useAttempt, useWrite } from '../useWrite'
import { HeldBack } from './HeldBack'
import { useSource, useSourcePreview } from './queries'
import { RuleList } from './RuleList'
import { Health } from './SourceList'
import { SourceEntries } from './SourceEntries'
import { SourceHistory } from './SourceHistory'
import { SourceSettings } from './SourceSettings'
import { WhoSeesIt } from './WhoSeesIt'
import { t } from './words'

/** A followed source: whether it is right, which of its entries goes where, and what became of each. */
export function SourcePage() {
  const { id = '' } = useParams()
  const source = useSource(id)
  if (source.error) return <NothingHere detail={source.error.message} />
  if (!source.data) return <p className="page">{t('opening')}</p>
  return <Source key={`${id} ${source.data.version}`} source={source.data} />
}

function Source({ source }: { source: FollowedSource }) {
  const [rules, setRules] = useState<SourceRules>(source.rules)
  const isChanged = JSON.stringify(rules) !== JSON.stringify(source.rules)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const { guard } = useLeaveGuard(isChanged, t('rulesAreNotSaved'))
  const save = () =>
    void post(async () => {
      await write('PUT', `/sources/${source.id}`, {
        version: source.version,
        name: source.name,
        everyMinutes: source.everyMinutes,
        rules,
        address: null,
      })
    })
  const preview = useSourcePreview(source, rules)
  const change = (part: Partial<SourceRules>) => setRules((before) => ({ ...before, ...part }))
  return (
    <main className="page intake intake-file source-page">
      <p className="soft">
        <Link to="/intake">{t('intake')}</Link>
      </p>
      <div className="page-head">
        <h1>{source.name}</h1>
        <span className="soft">
          {t('aFollowedSource')} · <Health source={source} />
        </span>
        <span className="stretch" />
        <FetchNow source={source} />
        <button type="button" className="btn btn-spruce" disabled={!isChanged || isBusy} onClick={save}>
          {t('saveTheRules')}
        </button>
      </div>
      {source.held && <HeldBack source={source} held={source.held} />}
      <div className="intake-halves">
        <section className="intake-questions">
          <SourceHistory source={source} />
          <RuleList rules={rules} problem={problem} counts={preview.data?.rules ?? []} own={source.ownCalendar} change={change} />
          {problem && !Object.keys(problem.errors).some((field) => field.startsWith('rules.') || field === 'else') && (
            <p className="notice" role="alert">
              {problem.message}
            </p>
          )}
          <SourceSettings source={source} rules={rules} change={change} />
        </section>
        <section className="intake-becomes" aria-labelledby="becomes">
          <Becomes source={source} rules={rules} preview={preview} isChanged={isChanged} change={change} />
        </section>
      </div>
      {guard}
    </main>
  )
}

function FetchNow({ source }: { source: FollowedSource }) {
  const write = useWrite()
  const attempt = useAttempt()
  return (
    <button
      type="button"
      className="btn btn-outline-ink"
      disabled={source.isBusy}
      onClick={() => void attempt(() => write('POST', `/sources/${source.id}/fetch`))}
    >
      {source.isBusy ? t('isAsked') : t('fetchNow')}
    </button>
  )
}

interface BecomesProps {
  source: FollowedSource
  rules: SourceRules
  preview: ReturnType<typeof useSourcePreview>
  isChanged: boolean
  change: (part: Partial<SourceRules>) => void
}

function Becomes({ source, rules, preview, isChanged, change }: BecomesProps) {
  if (preview.error && !preview.data)
    return (
      <p className="notice" role="alert">
        {preview.error.message}
      </p>
    )
  return (
    <>
      <h2 id="becomes">{t('asItCame')}</h2>
      {preview.error && <p className="intake-remark">{preview.error.message}</p>}
      {source.rightAt === null && <p className="soft">{source.isBusy ? t('isAsked') : t('nothingCameYet')}</p>}
      {preview.data && preview.data.total > 0 && (
        <>
          <SourceEntries source={source} rules={rules} preview={preview.data} isChanged={isChanged} />
          <WhoSeesIt preview={preview.data} rules={rules} isChanged={isChanged} change={change} />
        </>
      )}
    </>
  )
}
