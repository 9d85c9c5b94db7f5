import type messages from '../../../words/en/elsewhere.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/elsewhere.json', { import: 'default' }))
