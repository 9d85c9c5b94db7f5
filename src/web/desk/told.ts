/** Whether news of the desk come by themselves at the moment. */
let isTold = false

export function setTold(now: boolean): void {
  isTold = now
}

/** How often something is asked for by the clock: not at all while news of it come by themselves. */
export function unlessTold(milliseconds: number): () => number | false {
  return () => (isTold ? false : milliseconds)
}
