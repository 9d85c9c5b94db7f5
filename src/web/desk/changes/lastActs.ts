/** What this tab did, so that Ctrl+Z can take it back; the last one last. */
const MOST = 50

const acts: string[] = []
const nothing = '00000000-0000-0000-0000-000000000000'

/** Of whatever a change answered: the act, where it was one. What is taken back otherwise is not there to be taken back again. */
export function rememberAct(path: string, answer: unknown): void {
  const undone = /^\/acts\/([^/]+)\/undo$/.exec(path)?.[1]
  if (undone !== undefined) {
    const place = acts.lastIndexOf(undone)
    if (place >= 0) acts.splice(place, 1)
    return
  }
  const actId = typeof answer === 'object' && answer !== null && 'actId' in answer ? answer.actId : null
  if (typeof actId !== 'string' || actId === nothing) return
  acts.push(actId)
  if (acts.length > MOST) acts.shift()
}

/** The last one, which is no longer remembered: one that cannot be taken back stands in nobody's way. */
export const takeLastAct = () => acts.pop()
