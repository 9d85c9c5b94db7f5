import type messages from '../../../words/en/search.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/search.json', { import: 'default' }))
