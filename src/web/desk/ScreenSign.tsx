/** Strokes on a field of 20 by 20. */
const strokes = {
  plan: 'M2 5h16M2 10h16M2 15h16',
  calendars: 'M3 3h6v6H3zM11 3h6v6h-6zM3 11h6v6H3zM11 11h6v6h-6z',
  editions: 'M4 2h8l4 4v12H4zM7 10h6M7 14h6',
  intake: 'M10 2v10M6 8l4 4 4-4M3 13v4h14v-4',
  year: 'M2 17V9h4v8M8 17V4h4v13M14 17v-6h4v6',
  signOff: 'M3 11l5 5L18 4',
  people: 'M10 9a3 3 0 1 0 0-6 3 3 0 0 0 0 6zM3 18c0-4 3-6 7-6s7 2 7 6',
  more: 'M3 5h14M3 10h10M3 15h6',
}

export type Sign = keyof typeof strokes

/** The small drawing of a screen, beside its word. */
export function ScreenSign({ sign }: { sign: Sign }) {
  return (
    <svg className="way-sign" viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
      <path d={strokes[sign]} fill="none" stroke="currentColor" strokeWidth="1.7" />
    </svg>
  )
}
