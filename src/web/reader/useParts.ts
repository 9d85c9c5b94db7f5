import { useCallback, useEffect, useRef, useState } from 'react'
import { Closed, fetchBelow, type PageData, type Part, type PartName, type Parts } from './edition'
import { keptAt } from './kept'
import { listen } from './stream'

const POLL_EVERY = 60_000

export type Freshness = 'current' | 'away' | 'closed'

/** The parts this page has, kept right while the page is open: news by server-sent events, else by asking each minute. */
export function useParts(first: PageData, isAlive: boolean) {
  const { base } = first.addresses
  const [parts, setParts] = useState<Parts>(() => new Map(first.months.map((part) => [part.month, part])))
  const [freshness, setFreshness] = useState<Freshness>()
  const [version, setVersion] = useState(first.version)
  const known = useRef(parts)
  useEffect(() => {
    known.current = parts
  }, [parts])

  const load = useCallback(
    async (wanted: PartName[]) => {
      try {
        let kept: string | null = null
        const fetched = await Promise.all(
          wanted.map((name) => fetchBelow<Part>(base, `.json?month=${name}`, (at) => (kept = at))),
        )
        setParts((before) => new Map([...before, ...fetched.map((part) => [part.month, part] as const)]))
        setFreshness(kept ? 'away' : 'current')
      } catch (problem) {
        // What is shown stays; the reader is told that it may be old.
        setFreshness(problem instanceof Closed ? 'closed' : 'away')
      }
    },
    [base],
  )

  const require = useCallback(
    (wanted: PartName[]) => {
      const missing = wanted.filter((name) => !known.current.has(name))
      if (missing.length > 0) void load(missing)
    },
    [load],
  )

  const isLive = first.months[0]?.edition.isLive
  useEffect(() => {
    if (!isLive) return
    let told = first.version
    const renew = () => load([...known.current.keys()])
    const stream = listen(base, (news) => {
      if (news === told) {
        // It is reached again, and says that what is shown is right.
        setFreshness((before) => (before === 'closed' ? before : 'current'))
        return
      }
      told = news
      setVersion(told)
      void renew()
    })
    const polling = setInterval(() => {
      if (!document.hidden && !stream.isOpen()) void renew()
    }, POLL_EVERY)
    return () => {
      stream.stop()
      clearInterval(polling)
    }
  }, [isLive, base, first.version, load])

  // A kept copy is as old as it is until something comes that says otherwise; as it was painted it was right.
  return { parts, freshness: freshness ?? (isAlive && keptAt() ? 'away' : 'current'), version, require }
}
