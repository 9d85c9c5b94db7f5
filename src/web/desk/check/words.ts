import type messages from '../../../words/en/checking.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/checking.json', { import: 'default' }))
