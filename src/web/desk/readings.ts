import { flushSync } from 'react-dom'

/*
 * What is typed into a field for a day or a time is read by the server, as lines are. While an answer is on its way nothing is pressed:
 * what was typed would not be in what is saved.
 */

const onTheirWay = new Set<Promise<unknown>>()

let last: Promise<unknown> = Promise.resolve()

/**
 * Waits for a reading, and does what follows from it in the order in which things were typed: a start that moves the end must not move
 * an end that was typed after it.
 */
export function inOrder(reading: Promise<(() => void) | undefined>): void {
  const before = last
  const done = Promise.allSettled([reading, before]).then(([read]) => {
    onTheirWay.delete(done)
    if (read.status === 'rejected') throw read.reason
    // Each is drawn before the next: what follows from that may be worked out from what is on screen.
    if (read.value) flushSync(read.value)
  })
  onTheirWay.add(done)
  last = done.catch(() => undefined)
}

/** Holds back what is pressed or sent until all that was typed has been read; then it is pressed or sent. */
export function holdBackWhileReading(): () => void {
  const hold = (event: Event, again: () => void) => {
    if (onTheirWay.size === 0) return
    event.preventDefault()
    event.stopImmediatePropagation()
    // A turn later the form has what was read.
    void Promise.allSettled([...onTheirWay]).then(() => setTimeout(again))
  }
  const onClick = (event: MouseEvent) => {
    const button = event.target instanceof Element ? event.target.closest<HTMLElement>('button, a[href]') : null
    if (button) hold(event, () => button.click())
  }
  const onSubmit = (event: SubmitEvent) => {
    const form = event.target
    if (form instanceof HTMLFormElement) hold(event, () => form.requestSubmit(event.submitter))
  }
  document.addEventListener('click', onClick, true)
  document.addEventListener('submit', onSubmit, true)
  return () => {
    document.removeEventListener('click', onClick, true)
    document.removeEventListener('submit', onSubmit, true)
  }
}
