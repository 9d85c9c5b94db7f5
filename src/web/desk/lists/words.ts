import type messages from '../../../words/en/lists.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/lists.json', { import: 'default' }))
