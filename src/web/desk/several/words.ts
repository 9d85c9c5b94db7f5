import type messages from '../../../words/en/several.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/several.json', { import: 'default' }))
