/** Text as it was typed: its lines stay lines, and its addresses can be followed. */
export function PlainText({ text, className }: { text: string; className: string }) {
  return (
    <p className={`${className} plain-text`} dir="auto">
      {text.split(/(https?:\/\/[^\s<>"]*[^\s<>".,;:!?)\]}'])/).map((part, index) =>
        index % 2 === 1 ? (
          <a key={index} href={part} target="_blank" rel="noopener noreferrer">
            {part}
          </a>
        ) : (
          part
        ),
      )}
    </p>
  )
}
