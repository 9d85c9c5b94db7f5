import type messages from '../../../words/en/changes.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/changes.json', { import: 'default' }))
