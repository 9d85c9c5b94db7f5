import { useEffect, useState } from 'react'

/** The text as it was when nobody had typed for a moment. */
export function useSettled(text: string): string {
  const [settled, setSettled] = useState(text)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), 350)
    return () => clearTimeout(timer)
  }, [text])
  return settled
}
