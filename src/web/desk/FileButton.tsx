import { useRef } from 'react'

interface FileButtonProps {
  label: string
  /** Endings of what is taken. */
  accept: string
  className: string
  isReady?: boolean
  /** What stands on it while something is under way; else its label. */
  children?: string
  onBring: (file: File) => void
}

/** Lets somebody choose a file of theirs; the same one can be chosen again. */
export function FileButton({ label, accept, className, isReady = true, children, onBring }: FileButtonProps) {
  const field = useRef<HTMLInputElement>(null)
  return (
    <>
      <button type="button" className={className} disabled={!isReady} onClick={() => field.current?.click()}>
        {children ?? label}
      </button>
      <input
        ref={field}
        type="file"
        hidden
        accept={accept}
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) onBring(file)
        }}
      />
    </>
  )
}
