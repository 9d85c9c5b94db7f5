import { useEffect, useRef } from 'react'

const moves: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}

/**
 * Makes the [data-cell] buttons of a table one stop of the Tab key, with the arrow keys moving between them
 * (the roving focus of the WAI-ARIA grid pattern).
 */
export function useArrowKeys() {
  const table = useRef<HTMLTableElement>(null)
  useEffect(() => {
    const element = table.current
    if (!element) return
    const rows = () =>
      [...element.querySelectorAll('tr')]
        .map((row) => [...row.querySelectorAll<HTMLElement>('[data-cell]')])
        .filter((row) => row.length > 0)
    const choose = (cell: HTMLElement) => {
      for (const other of element.querySelectorAll<HTMLElement>('[data-cell]')) other.tabIndex = other === cell ? 0 : -1
    }
    const onFocus = (event: FocusEvent) => {
      if (event.target instanceof HTMLElement && event.target.matches('[data-cell]')) choose(event.target)
    }
    const onKeyDown = (event: KeyboardEvent) => {
      const move = moves[event.key]
      if (!move || !(event.target instanceof HTMLElement) || !event.target.matches('[data-cell]')) return
      const grid = rows()
      const row = grid.findIndex((cells) => cells.includes(event.target as HTMLElement))
      const column = grid[row]?.indexOf(event.target) ?? -1
      const next = grid[row + move[0]]?.[column + move[1]]
      event.preventDefault()
      next?.focus()
    }
    const first =
      element.querySelector<HTMLElement>('[data-cell][aria-pressed=true]') ?? element.querySelector<HTMLElement>('[data-cell]')
    if (first && !element.contains(document.activeElement)) choose(first)
    element.addEventListener('focusin', onFocus)
    element.addEventListener('keydown', onKeyDown)
    return () => {
      element.removeEventListener('focusin', onFocus)
      element.removeEventListener('keydown', onKeyDown)
    }
  })
  return table
}
