import type { SourcePreview, SourceRules } from '../types'
import { t } from './words'

interface WhoSeesItProps {
  preview: SourcePreview
  rules: SourceRules
  isChanged: boolean
  change: (part: Partial<SourceRules>) => void
}

/** An outside source is no more public than somebody decided. */
export function WhoSeesIt({ preview, rules, isChanged, change }: WhoSeesItProps) {
  const { members, link, everyone } = preview.seen
  return (
    <>
      <h2>{t('whoSeesIt')}</h2>
      <p>
        {members === 0 ? t('membersSeeNothing') : t('membersSee', { count: members })}{' '}
        {link > everyone && `${t('linkSees', { count: link })} `}
        {everyone > 0 ? t('everyoneSees', { count: everyone }) : t('everyoneSeesNothing')}{' '}
        <button type="button" className="as-link" onClick={() => change({ isOpen: !rules.isOpen })}>
          {rules.isOpen ? t('keepToMembers') : t('showAsCalendarsDo')}
        </button>
        {isChanged && <span className="soft"> {t('onceSaved')}</span>}
      </p>
    </>
  )
}
