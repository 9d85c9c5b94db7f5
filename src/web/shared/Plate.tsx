/** A calendar's short code in its colour and hatch, so that nobody has to tell calendars apart by colour. */
export function Plate({ code, colour, size = 'usual' }: { code: string; colour: string; size?: 'small' | 'usual' }) {
  if (!code) return null
  return <span className={`plate hue-${colour} plate-${size}`}>{code}</span>
}
