import type messages from '../../../words/en/proof.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/proof.json', { import: 'default' }))

export const audienceNames = { editors: t('editors'), members: t('members'), link: t('link'), everyone: t('everyone') }
