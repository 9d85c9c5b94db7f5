import { useState } from 'react'
import type { EditionPreview } from '../types'
import { t } from './words'

const widths = { phone: 390, sidebar: 300, column: 640, page: 1000 }
const widthNames = { phone: t('phone'), sidebar: t('sidebar'), column: t('column'), page: t('pageWidth') }

type Width = keyof typeof widths

/** The real reader in a real frame, as readers would get it. Until the next one has loaded, the last one stays in sight. */
export function PreviewFrame({ preview, name }: { preview: EditionPreview | undefined; name: string }) {
  const [width, setWidth] = useState<Width>('phone')
  const [shown, setShown] = useState<string | null>(null)
  const path = preview?.path
  const frames = [...new Set([shown, path].filter((one): one is string => Boolean(one)))]
  return (
    <section className="preview" aria-label={t('asReadersGetIt')}>
      <div className="page-head">
        <h2>{t('asReadersGetIt')}</h2>
        <div className="joined" role="group" aria-label={t('width')}>
          {(Object.keys(widths) as Width[]).map((one) => (
            <button key={one} type="button" aria-pressed={width === one} onClick={() => setWidth(one)}>
              {widthNames[one]} {widths[one]}
            </button>
          ))}
        </div>
      </div>
      {!preview && <p className="empty">{t('chooseACalendarAndThe')}</p>}
      <div className="preview-scroll" tabIndex={0} role="region" aria-label={t('preview')}>
        <div className="preview-frames" data-width={width}>
          {frames.map((one) => (
            <iframe
              key={one}
              src={one}
              className={one === path || frames.length === 1 ? undefined : 'is-leaving'}
              title={t('nameAsReadersGetIt', { name: name || t('theNewEdition') })}
              width={widths[width]}
              height="620"
              onLoad={() => setShown(one)}
            />
          ))}
        </div>
      </div>
      {preview && (
        <p className="soft">
          {[
            preview.entries === 0 ? t('noEntries') : t('entriesWithinAYear', { count: preview.entries }),
            preview.merged > 0 && t('lookAlikesMerged', { count: preview.merged }),
            preview.closed.length > 0 && t('sourcesClosed', { count: preview.closed.length }),
          ]
            .filter(Boolean)
            .join(', ')}
        </p>
      )}
    </section>
  )
}
