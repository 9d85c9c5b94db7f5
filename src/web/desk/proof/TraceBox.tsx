import type { Proof, Trace } from '../types'
import { Remedies } from './Remedies'
import { useTrace } from './queries'
import { t } from './words'

interface TraceBoxProps {
  proof: Proof
  eventId: string
  date: string
  title: string
  onClose: () => void
}

/** Why a date is, or is not, in an edition: the rules that it met, with the one that decided. */
export function TraceBox({ proof, eventId, date, title, onClose }: TraceBoxProps) {
  const trace = useTrace(proof.id, eventId, date)
  return (
    <section className="proof-box trace-box" aria-live="polite">
      <h3>{trace.data ? t(trace.data.isIn ? 'whyIsTitleThere' : 'whyIsNotHere', { title }) : title}</h3>
      {trace.error && <p className="refusal">{trace.error.message}</p>}
      {trace.data && <Verdicts trace={trace.data} />}
      <p className="trace-ways">
        {trace.data && <Remedies remedies={trace.data.remedies} about={title} proof={proof} />}
        <button type="button" className="as-link" onClick={onClose}>
          {t('close')}
        </button>
      </p>
    </section>
  )
}

export function Verdicts({ trace }: { trace: Trace }) {
  return (
    <ol className="verdicts">
      {trace.verdicts.map((one) => (
        <li key={one.step} className={one.passes ? '' : 'decided'}>
          {one.said}
        </li>
      ))}
    </ol>
  )
}
