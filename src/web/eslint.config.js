import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['node_modules', 'shared/api.generated.ts'] },
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
)
