import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['node_modules', 'shared/api.generated.ts'] },
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
  {
    files: ['desk/**/*.tsx', 'reader/**/*.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXText[value=/^(?!\\s*(valtro|SVG|PNG|Atom)\\s*$)[^]*[A-Za-z]{2}/]',
          message: 'What people read comes from the catalogues (src/words).',
        },
        {
          selector:
            'JSXAttribute[name.name=/^(aria-label|title|placeholder|alt|label|about|button)$/] > Literal[value=/^(?!https?:)[^]*[A-Za-z]{2}/]',
          message: 'What people read comes from the catalogues (src/words).',
        },
      ],
    },
  },
)
