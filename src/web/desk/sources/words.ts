import type messages from '../../../words/en/sources.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/sources.json', { import: 'default' }))
