import { asSeen } from '../api'
import { t } from './words'

const forms = ['ics', 'csv', 'xlsx'] as const

/** What an edition's readers get, as files. */
export function TakeAlong({ id }: { id: string }) {
  return (
    <p className="take-along">
      {t('takeAlong')}{' '}
      {forms.map((form) => (
        <a key={form} href={asSeen(`/editions/${id}/file.${form}`)} download>
          {t(`form_${form}`)}
        </a>
      ))}
    </p>
  )
}
