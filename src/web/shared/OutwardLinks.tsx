interface OutwardLink {
  address: string
  label: string
  /** Said beside it: a size. */
  about?: string
}

/** Addresses that lead out of the page, each into a window of its own; nothing where there are none. */
export function OutwardLinks({ links, className }: { links: OutwardLink[]; className: string }) {
  if (links.length === 0) return null
  return (
    <ul className={className}>
      {links.map(({ address, label, about }) => (
        <li key={address}>
          <a href={address} target="_blank" rel="noopener noreferrer">
            {label}
          </a>
          {about && <span className="soft"> {about}</span>}
        </li>
      ))}
    </ul>
  )
}
