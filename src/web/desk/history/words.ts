import type messages from '../../../words/en/history.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/history.json', { import: 'default' }))
