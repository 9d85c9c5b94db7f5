import Modal from 'react-bootstrap/Modal'
import { useToast } from '../Toasts'
import type { EditionSetting, Proof } from '../types'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { Difference } from './Difference'
import { useSettingPreview } from './queries'
import { audienceNames, t } from './words'

interface SettingDialogProps {
  proof: Proof
  setting: EditionSetting
  calendarId: string | null
  /** The button that led here. */
  title: string
  /** What is put right by it. */
  about: string
  onLeave: () => void
}

/** Another setting of an edition, with what follows from it, before it is saved. */
export function SettingDialog({ proof, setting, calendarId, title, about, onLeave }: SettingDialogProps) {
  const preview = useSettingPreview(proof.id, setting, calendarId, proof.version)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const save = () =>
    post(async () => {
      await write('POST', `/editions/${proof.id}/proof/setting`, { setting, calendarId, version: proof.version })
      toast(t('editionIsSaved'))
      onLeave()
    })
  const shown = preview.data
  const wrong = problem?.message ?? preview.error?.message
  return (
    <Modal show onHide={onLeave} aria-labelledby="setting-title">
      <Modal.Body>
        <h2 id="setting-title">{title.replace(/\s*…$/u, '')}</h2>
        <p className="soft">{about}</p>
        {shown && (
          <ul className="setting-follows">
            <Difference of={shown} />
            <li>
              {!proof.isInTheMaking ? t('settingReaders', { audience: audienceNames[shown.readers] }) : t('settingReadersLater')}
            </li>
          </ul>
        )}
        {!shown && !wrong && <p className="soft">{t('opening')}</p>}
        {wrong && (
          <p className="notice" role="alert">
            {wrong}
          </p>
        )}
        <p className="popup-acts">
          <button type="button" className="btn btn-spruce" disabled={!shown || isBusy} onClick={() => void save()}>
            {t('save')}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onLeave}>
            {t('leaveItAsItIs')}
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}
