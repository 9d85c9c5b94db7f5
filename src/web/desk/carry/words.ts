import type messages from '../../../words/en/carry.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/carry.json', { import: 'default' }))
