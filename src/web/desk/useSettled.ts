import { useEffect, useState } from 'react'

/** The text as it was when nobody had typed for a moment. */
export function useSettled(text: string, after = 350): string {
  const [settled, setSettled] = useState(text)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), after)
    return () => clearTimeout(timer)
  }, [text, after])
  return settled
}
