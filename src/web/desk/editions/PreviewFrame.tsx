import { useState } from 'react'
import type { EditionPreview } from '../api'

const widths = { Phone: 390, Sidebar: 300, Column: 640, Page: 1000 }

type Width = keyof typeof widths

/** The real reader in a real frame, as readers would get it. Until the next one has loaded, the last one stays in sight. */
export function PreviewFrame({ preview, name }: { preview: EditionPreview | undefined; name: string }) {
  const [width, setWidth] = useState<Width>('Phone')
  const [shown, setShown] = useState<string | null>(null)
  const path = preview?.path
  const frames = [...new Set([shown, path].filter((one): one is string => Boolean(one)))]
  return (
    <section className="preview" aria-label="As readers get it">
      <div className="page-head">
        <h2>As readers get it</h2>
        <div className="joined" role="group" aria-label="Width">
          {(Object.keys(widths) as Width[]).map((one) => (
            <button key={one} type="button" aria-pressed={width === one} onClick={() => setWidth(one)}>
              {one} {widths[one]}
            </button>
          ))}
        </div>
      </div>
      {!preview && <p className="empty">Choose a calendar, and the page stands here as its readers get it.</p>}
      <div className="preview-scroll" tabIndex={0} role="region" aria-label="Preview">
        <div className="preview-frames" data-width={width}>
          {frames.map((one) => (
            <iframe
              key={one}
              src={one}
              className={one === path || frames.length === 1 ? undefined : 'is-leaving'}
              title={`${name || 'The new edition'} as readers get it`}
              width={widths[width]}
              height="620"
              onLoad={() => setShown(one)}
            />
          ))}
        </div>
      </div>
      {preview && (
        <p className="soft">
          {preview.entries === 0 ? 'No entries.' : preview.entries === 1 ? '1 entry' : `${preview.entries} entries`}
          {preview.entries > 0 && ' within a year'}
          {preview.merged > 0 && `, ${preview.merged} ${preview.merged === 1 ? 'look-alike' : 'look-alikes'} merged`}
          {preview.closed.length > 0 && `, ${preview.closed.length} ${preview.closed.length === 1 ? 'source' : 'sources'} closed`}
        </p>
      )}
    </section>
  )
}
