import { useRef } from 'react'
import { apiAddress } from '../api'
import type { Proof } from '../types'
import { t } from './words'

const widths = { page: 900, phone: 390, print: 718 }

/** The real reader in a real frame: as wide as a page, a phone, or a sheet of paper. */
export function FormFrame({ proof, form }: { proof: Proof; form: keyof typeof widths }) {
  const frame = useRef<HTMLIFrameElement>(null)
  return (
    <>
      {form === 'print' && (
        <p>
          <button type="button" className="btn btn-outline-ink" onClick={() => frame.current?.contentWindow?.print()}>
            {t('printThis')}
          </button>
        </p>
      )}
      <div className="preview-scroll" tabIndex={0} role="region" aria-label={t(`form_${form}`)}>
        <iframe
          ref={frame}
          className="proof-frame"
          src={apiAddress(`/editions/${proof.id}/page`)}
          title={t('nameAsReadersGetIt', { name: proof.name })}
          width={widths[form]}
          height={form === 'phone' ? 720 : 640}
        />
      </div>
    </>
  )
}
