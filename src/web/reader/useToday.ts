import { useEffect, useState } from 'react'
import { todayIn, type Day } from '../shared/days'

/** A little after midnight, so that it is certainly another day. */
const AFTER_MIDNIGHT = 500

/** The longest that is waited at once: a clock may have been set, or the machine have slept. */
const LONGEST_WAIT = 30 * 60_000

/** The day it is in a zone. It moves on at midnight there. */
export function useToday(zone: string, first: Day): Day {
  const [today, setToday] = useState(first)
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>
    const look = () => {
      setToday(todayIn(zone))
      timer = setTimeout(look, Math.min(millisecondsToMidnight(zone) + AFTER_MIDNIGHT, LONGEST_WAIT))
    }
    timer = setTimeout(look)
    return () => clearTimeout(timer)
  }, [zone])
  return today
}

function millisecondsToMidnight(zone: string): number {
  const parts = new Intl.DateTimeFormat('en', {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(new Date())
  const part = (type: string) => Number(parts.find((one) => one.type === type)?.value ?? 0)
  return 86_400_000 - ((part('hour') * 60 + part('minute')) * 60 + part('second')) * 1_000
}
