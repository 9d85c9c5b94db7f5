import type messages from '../../../words/en/account.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/account.json', { import: 'default' }))
