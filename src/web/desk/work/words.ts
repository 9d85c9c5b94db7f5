import type messages from '../../../words/en/work.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/work.json', { import: 'default' }))
