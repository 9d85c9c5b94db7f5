/** Why a field was refused, read out when it comes; nothing while it is right. */
export function Refusal({ id, text }: { id?: string; text?: string }) {
  return (
    <span id={id} className={text ? 'refusal' : undefined} role={text ? 'alert' : undefined}>
      {text}
    </span>
  )
}
