import type messages from '../../../words/en/plan.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/plan.json', { import: 'default' }))
