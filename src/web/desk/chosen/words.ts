import type messages from '../../../words/en/chosen.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/chosen.json', { import: 'default' }))
