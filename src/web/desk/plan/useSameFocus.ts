import { useEffect, useLayoutEffect } from 'react'

/** Where somebody was when they left the plan: a slip by its address, a day by what it says. */
let left: { attribute: 'href' | 'aria-label'; value: string } | null = null

/** Slips and days are drawn when they have been asked for, and of many lanes as they come in sight. */
const PATIENCE = 3_000

/** Whoever comes back to the plan from an event goes on where they were. */
export function useSameFocus(): void {
  useLayoutEffect(
    () => () => {
      const element = document.activeElement?.closest('.plan-body a, .plan-body [data-cell]')
      const attribute = element?.tagName === 'A' ? 'href' : 'aria-label'
      const value = element?.getAttribute(attribute)
      left = value ? { attribute, value } : null
    },
    [],
  )
  useEffect(() => {
    if (!left) return
    const { attribute, value } = left
    const focus = () => {
      // Who has gone on by now is not called back.
      if (document.activeElement && document.activeElement !== document.body) return true
      const element = [...document.querySelectorAll<HTMLElement>('.plan-body a, .plan-body [data-cell]')].find(
        (one) => one.getAttribute(attribute) === value,
      )
      element?.focus({ preventScroll: true })
      return element !== undefined
    }
    if (focus()) return
    const watching = new MutationObserver(() => focus() && watching.disconnect())
    watching.observe(document.body, { childList: true, subtree: true })
    const timer = setTimeout(() => watching.disconnect(), PATIENCE)
    return () => {
      clearTimeout(timer)
      watching.disconnect()
    }
  }, [])
}
