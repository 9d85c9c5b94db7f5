import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { differs, Difference } from '../proof/Difference'
import type { Impact, ProofDifference } from '../types'
import { t } from './words'

/** So many are looked through at one press. */
const AT_ONE_PRESS = 60

/** Reads an edition in the year as it would be. */
export type LookAt = (edition: string, signal: AbortSignal) => Promise<ProofDifference>

interface YearProofProps {
  lookAt: LookAt
  editions: Impact['editions']
}

interface Looked {
  edition: Impact['editions'][number]
  difference: ProofDifference
}

/** What the year as it would be makes of each edition that goes out: looked through one after the other, before anything is saved. */
export function YearProof({ lookAt, editions }: YearProofProps) {
  const [looked, setLooked] = useState<Looked[]>([])
  const [until, setUntil] = useState(0)
  const [wrong, setWrong] = useState('')
  const leaving = useRef(new AbortController())
  useEffect(() => {
    const left = (leaving.current = new AbortController())
    return () => left.abort()
  }, [])
  const look = async () => {
    const { signal } = leaving.current
    const next = editions.slice(looked.length, looked.length + AT_ONE_PRESS)
    setUntil(looked.length + next.length)
    setWrong('')
    try {
      for (const edition of next) {
        const difference = await lookAt(edition.id, signal)
        if (signal.aborted) return
        setLooked((before) => [...before, { edition, difference }])
      }
    } catch (problem) {
      if (signal.aborted) return
      setWrong((problem as Error).message)
      setUntil(0)
    }
  }
  const isLooking = looked.length < until
  const left = editions.length - looked.length
  const changed = looked.filter(({ difference }) => differs(difference))
  const same = looked.length - changed.length
  // What is new and wrong comes first; otherwise they stay in their order.
  changed.sort((one, other) => Number(other.difference.come.length > 0) - Number(one.difference.come.length > 0))
  if (editions.length === 0) return null
  return (
    <section className="year-proof" aria-labelledby="year-proof-title">
      <h3 id="year-proof-title">{t('proofTitle')}</h3>
      <div role="status">
        {isLooking && (
          <p className="soft">
            <progress value={looked.length} max={until} aria-label={t('proofTitle')} />{' '}
            {t('lookedThrough', { done: looked.length, count: until })}
          </p>
        )}
        {!isLooking && same > 0 && <p>{t('asBefore', { count: same })}</p>}
      </div>
      {changed.map(({ edition, difference }) => (
        <section key={edition.id} className="impact">
          <h4>
            <Link to={`/editions/${edition.id}/proof`}>{edition.name}</Link>
          </h4>
          <ul>
            <Difference of={difference} />
          </ul>
        </section>
      ))}
      {wrong && (
        <p className="notice" role="alert">
          {wrong}
        </p>
      )}
      {!isLooking && left > 0 && (
        <button type="button" className="btn btn-outline-ink" onClick={() => void look()}>
          {looked.length === 0 ? t('lookThrough', { count: left }) : t('lookThroughMore', { count: left })}
        </button>
      )}
    </section>
  )
}
