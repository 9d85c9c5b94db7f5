import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { Link, useParams } from 'react-router'
import { sayAgo } from '../Delivery'
import { NothingHere } from '../NothingHere'
import type { Proof } from '../types'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { Entries } from './Entries'
import { FeedText } from './FeedText'
import { Findings } from './Findings'
import { FormFrame } from './FormFrame'
import { useProof } from './queries'
import { audienceNames, t } from './words'
import { WhyNot } from './WhyNot'

const forms = ['entries', 'page', 'phone', 'feed', 'print'] as const

type Form = (typeof forms)[number]

/** An edition read before its readers do: what is wrong with it, beside what they get. */
export function ProofPage() {
  const { id = '' } = useParams()
  const [from, setFrom] = useState('')
  const proof = useProof(id, from)
  const [form, setForm] = useState<Form>('entries')
  if (proof.error && !proof.data) return <NothingHere detail={proof.error.message} />
  if (!proof.data) return <p className="page">{t('opening')}</p>
  return (
    <main className="proof-page">
      <Head proof={proof.data} form={form} onForm={setForm} />
      <div className="proof-halves">
        <Findings proof={proof.data} />
        <section className="proof-readers" aria-label={t(`form_${form}`)}>
          {form === 'entries' && <Entries proof={proof.data} from={from} onFrom={setFrom} />}
          {form === 'feed' && <FeedText id={id} />}
          {(form === 'page' || form === 'phone' || form === 'print') && <FormFrame proof={proof.data} form={form} />}
          <WhyNot proof={proof.data} />
          <WhoHasIt proof={proof.data} />
        </section>
      </div>
    </main>
  )
}

interface HeadProps {
  proof: Proof
  form: Form
  onForm: (form: Form) => void
}

function Head({ proof, form, onForm }: HeadProps) {
  const [isAsking, setAsking] = useState(false)
  const audience = audienceNames[proof.audience]
  return (
    <header className="screen-head">
      <p className="soft crumbs">
        <Link to="/editions">{t('editions')}</Link> › <Link to={`/editions/${proof.id}`}>{proof.name}</Link> › {t('proof')}
      </p>
      <div className="page-head">
        <h1>{proof.name}</h1>
        <span className="soft">
          {t(proof.isInTheMaking ? 'asAudienceWillGetIt' : 'asAudienceGetsIt', { audience })}
          {proof.wentOutAt && ` · ${t('lastWentOut', { ago: sayAgo(proof.wentOutAt) })}`}
        </span>
        <span className="stretch" />
        <div className="joined" role="group" aria-label={t('forms')}>
          {forms.map((one) => (
            <button key={one} type="button" aria-pressed={form === one} onClick={() => onForm(one)}>
              {t(`form_${one}`)}
            </button>
          ))}
        </div>
        {proof.isInTheMaking && (
          <button type="button" className="btn btn-spruce" onClick={() => setAsking(true)}>
            {t('letItGoOut')}
          </button>
        )}
      </div>
      {proof.isInTheMaking && (
        <p className="in-the-making">
          <b>{t('inTheMaking')}</b> {t('inTheMakingAbout')}
        </p>
      )}
      {isAsking && <LetOut proof={proof} onLeave={() => setAsking(false)} />}
    </header>
  )
}

/** What is still wrong is said before it goes out. */
function LetOut({ proof, onLeave }: { proof: Proof; onLeave: () => void }) {
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const kept = proof.findings.filter((one) => one.severity === 'keepsFromReaders' && !one.putOff)
  const letOut = () =>
    post(async () => {
      await write('POST', `/editions/${proof.id}/let-out`)
      toast(t('nameIsOut', { name: proof.name }))
      onLeave()
    })
  return (
    <Modal show onHide={onLeave} aria-labelledby="let-out-title">
      <Modal.Body>
        <h2 id="let-out-title">{t('letItGoOutTitle', { name: proof.name })}</h2>
        <p>{t('letItGoOutAbout', { count: proof.entries, audience: audienceNames[proof.audience] })}</p>
        {kept.length > 0 && (
          <div className="remark">
            <b>{t('stillKeptBack', { count: kept.length })}</b>
            <ul>
              {kept.map((one) => (
                <li key={one.kind + one.about}>{one.title}</li>
              ))}
            </ul>
          </div>
        )}
        {problem && (
          <p className="notice" role="alert">
            {problem.message}
          </p>
        )}
        <p className="popup-acts">
          <button type="button" className="btn btn-spruce" disabled={isBusy} onClick={() => void letOut()}>
            {t(kept.length > 0 ? 'letItGoOutAll' : 'letItGoOut')}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onLeave}>
            {t('notYet')}
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}

function WhoHasIt({ proof }: { proof: Proof }) {
  return (
    <section className="proof-box is-quiet">
      <h2>{t('whoHasIt')}</h2>
      <p className="soft">
        {proof.isInTheMaking ? t('nobodyYet') : t('programsLately', { count: proof.programs })}{' '}
        {!proof.isInTheMaking && <Link to={`/editions/${proof.id}/deliveries`}>{t('whoHasWhich')}</Link>}
      </p>
    </section>
  )
}
