import { useState } from 'react'
import { newKey } from '../api'
import { useLeaveGuard } from '../LeaveGuard'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { useUndo } from './Changes'

interface Made {
  actId: string
  events: number
}

/**
 * One press that makes many events: once, however often it has to be sent, with the way back.
 * @param notMade What is lost by leaving now; asked where something is typed.
 */
export function useMakingMany(isDirty: boolean, notMade: string) {
  const { problem, isBusy, post } = usePost()
  const [once, setOnce] = useState(newKey)
  const toast = useToast()
  const undo = useUndo()
  const { guard, leaveTo } = useLeaveGuard(isDirty, notMade)
  /** @param goOn Where to, or with what in the same table. */
  const make = (send: (once: string) => Promise<Made>, say: (events: number) => string, goOn: string | (() => void)) =>
    post(async () => {
      const done = await send(once)
      toast(say(done.events), () => undo(done.actId))
      if (typeof goOn === 'string') return leaveTo(goOn)
      goOn()
      setOnce(newKey())
    })
  return { problem, isBusy, make, guard }
}
