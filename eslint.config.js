import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

export default ts.config(
  {
    ignores: [
      '**/dist/**',
      'node_modules/**',
      '.data/**',
      'web/public/**',
      '.dependency-cruiser.cjs',
      'server/platform/migrations/**',
      'server/build.mjs',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none' },
      ],
      '@typescript-eslint/no-unused-expressions': ['error', { allowTernary: true, allowShortCircuit: true }],
      'no-console': ['error', { allow: ['error', 'log'] }],
      // A comma after a state setter keeps an event handler on one line.
      'no-sequences': 'off',
    },
  },
)
