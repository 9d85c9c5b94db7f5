import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Problem } from '../Problem'
import type { Edition } from '../types'
import { DeliveryLine } from '../Delivery'
import { Refusal } from '../Refusal'
import { useLeaveGuard } from '../LeaveGuard'
import { NothingHere } from '../NothingHere'
import { useEdition, useEditionPreview, useKnownEdition } from './queries'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { useSettled } from '../useSettled'
import { DeliveryStep } from './DeliveryStep'
import { draftOf, emptyDraft, hasCalendars, presets, type Draft } from './draft'
import { audienceWords } from './EditionsPage'
import { HowMuchStep } from './HowMuchStep'
import { LookStep } from './LookStep'
import { PreviewFrame } from './PreviewFrame'
import { SourcesStep } from './SourcesStep'
import { WordsStep } from './WordsStep'
import { t } from './words'

/** An edition is built in five steps on one page, beside what its readers get. */
export function EditionPage() {
  const { id } = useParams()
  const edition = useEdition(id)
  if (id && edition.error) return <NothingHere detail={edition.error.message} />
  if (id && !edition.data) return <p className="page">{t('opening')}</p>
  return <EditionForm key={id ?? 'new'} saved={edition.data} />
}

function EditionForm({ saved }: { saved: Edition | undefined }) {
  const [draft, setDraft] = useState<Draft>(saved ? draftOf(saved.edition) : emptyDraft)
  const text = JSON.stringify(draft)
  const [kept, setKept] = useState(text)
  const isStandard = saved?.isStandard ?? false
  const asked = useSettled(text)
  const isAskable = hasCalendars(draft)
  const preview = useEditionPreview(saved?.id, isAskable ? asked : kept)
  const { problem: saveProblem, isBusy, post, forget } = useSaving()
  const problem = saveProblem ?? (preview.error instanceof Problem && isAskable ? preview.error : null)
  const write = useWrite()
  const known = useKnownEdition()
  const toast = useToast()
  const { guard, leaveTo } = useLeaveGuard(text !== kept, t('thisEditionIsNotSaved'))
  const change = (part: Partial<Draft>) => {
    forget()
    setDraft((before) => ({ ...before, ...part }))
  }
  const put = async (edition: Draft, version: number) => {
    const done = await write('PUT', `/editions/${saved?.id}`, { edition, version })
    known.keep(done)
    const now = draftOf(done.edition)
    setDraft(now)
    setKept(JSON.stringify(now))
    return done
  }
  const save = () =>
    post(async () => {
      if (!saved) {
        const made = await write('POST', '/editions', { edition: draft, isOut: false })
        setKept(text)
        toast(t('nameIsMadeItsSnippets', { name: made.name }))
        leaveTo(`/editions/${made.id}/proof`)
        return
      }
      const before = draftOf(saved.edition)
      const done = await put(draft, saved.version)
      toast(t('nameIsSavedPagesThat', { name: done.name }), () => put(before, done.version))
    })
  const remove = () =>
    post(async () => {
      if (!saved) return
      await write('DELETE', `/editions/${saved.id}`)
      setKept(text)
      toast(t('nameIsRemovedItsAddresses', { name: saved.name }), () => restore(saved.id))
      leaveTo('/editions')
    })
  const restore = async (id: string) => {
    await write('POST', `/editions/${id}/restore`)
  }

  return (
    <main className="edition-builder">
      {guard}
      <div className="screen-head">
        <p className="soft crumbs">
          <Link to="/editions">{t('editions')}</Link> › {saved?.name ?? t('newEdition')}
        </p>
        <div className="page-head">
          {isStandard ? (
            <h1>{saved?.name}</h1>
          ) : (
            <h1 className="name-field">
              <input
                aria-label={t('nameOfTheEdition')}
                value={draft.name}
                placeholder={t('juniorsForFamilies')}
                aria-invalid={problem?.on('name') !== undefined}
                onChange={(event) => change({ name: event.target.value })}
              />
            </h1>
          )}
          <span className="soft">
            {isStandard ? t('forWhoeverItIsOpen') : t('forAudience', { audience: audienceWords[draft.audience] })}
          </span>
          {saved &&
            (saved.isInTheMaking ? <b className="soft">{t('inTheMaking')}</b> : <DeliveryLine delivery={saved.freshness} />)}
          <span className="stretch" />
          {saved && (
            <Link className="btn btn-outline-ink" to={`/editions/${saved.id}/proof`}>
              {t('proof')}
            </Link>
          )}
          {saved && !saved.isInTheMaking && (
            <Link className="btn btn-outline-ink" to={`/editions/${saved.id}/deliveries`}>
              {t('whoHasIt')}
            </Link>
          )}
          {saved && !isStandard && (
            <button type="button" className="btn btn-brick" disabled={isBusy} onClick={remove}>
              {t('remove')}
            </button>
          )}
          <button
            type="button"
            className="btn btn-spruce"
            disabled={isBusy || (saved !== undefined && text === kept)}
            onClick={save}
          >
            {saved ? t('save') : t('makeTheEdition')}
          </button>
        </div>
        <Refusal text={problem?.on('name')} />
        {saveProblem && Object.keys(saveProblem.errors).length === 0 && (
          <p className="notice" role="alert">
            {saveProblem.message}
          </p>
        )}
      </div>
      <div className="builder">
        <div className="steps">
          {!saved && (
            <div className="presets" role="group" aria-label={t('beginWith')}>
              <span className="soft">{t('beginWith')}</span>
              {presets.map((preset) => (
                <button
                  key={preset.name}
                  type="button"
                  className="btn btn-outline-ink"
                  title={preset.about}
                  onClick={() => change({ ...emptyDraft, name: draft.name, sources: draft.sources, ...preset.change })}
                >
                  {preset.name}
                </button>
              ))}
            </div>
          )}
          <SourcesStep
            draft={draft}
            isStandard={isStandard}
            preview={isAskable ? preview.data : undefined}
            problem={problem}
            onChange={change}
          />
          <HowMuchStep draft={draft} isStandard={isStandard} problem={problem} onChange={change} />
          <WordsStep draft={draft} example={preview.data?.example} problem={problem} onChange={change} />
          <LookStep draft={draft} preview={preview.data} problem={problem} onChange={(look) => change({ look })} />
          <DeliveryStep
            draft={draft}
            saved={saved}
            problem={problem}
            onChange={change}
            onLink={() => void known.askAgain(saved?.id ?? '')}
          />
        </div>
        <PreviewFrame preview={isAskable ? preview.data : undefined} name={draft.name} />
      </div>
    </main>
  )
}

/** A refusal stands until something is changed. */
function useSaving() {
  const { problem, isBusy, post } = usePost()
  const [forgotten, setForgotten] = useState<Problem | null>(null)
  return { problem: problem === forgotten ? null : problem, isBusy, post, forget: () => setForgotten(problem) }
}
