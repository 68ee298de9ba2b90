import js from '@eslint/js'
import a11y from 'eslint-plugin-jsx-a11y-x'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

/** A failure is told, written down (`noted`) or thrown on; what may be absent is asked for by its code. */
const silentCatch = [
  {
    selector:
      'CallExpression[callee.property.name="catch"] > ArrowFunctionExpression[params.length=0]:matches(:has(> Identifier[name="undefined"]), [body.type="Literal"], :has(> BlockStatement[body.length=0]))',
    message: 'No silent catch: tell it, throw it on, or write it down with noted().',
  },
]
/** Whatever opens a file with ffmpeg goes through the module that limits its protocols. */
const oneDoor = {
  selector: 'Literal[value=/^ff(mpeg|probe)$/]',
  message: 'ffmpeg and ffprobe only through server/platform/media/ffmpeg.ts, which limits what they open.',
}

/**
 * What does not keep to the limits yet (positional parameters, complexity, length of a component) is counted file by
 * file in eslint-suppressions.json: no file may get worse, and `npx eslint . --prune-suppressions` takes out what is
 * mended.
 What needs to know types (promises nobody waits for,
 * values of any type) is looked for by oxlint, .oxlintrc.json, in a quarter of the time.
 */
export default ts.config(
  {
    ignores: [
      '**/dist/**',
      'node_modules/**',
      '.data/**',
      'test-results/**',
      'web/public/**',
      '.dependency-cruiser.cjs',
      'server/platform/migrations/**',
      '**/*.mjs',
      'eslint.config.js',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  // In tests nothing is drawn often enough for what its rules are about, and they take the longest of all.
  { ...hooks.configs.flat['recommended-latest'], files: ['web/**'], ignores: ['**/*.test.{ts,tsx}'] },
  {
    files: ['web/**'],
    plugins: a11y.configs.recommended.plugins,
    rules: {
      ...a11y.configs.recommended.rules,
      'jsx-a11y-x/label-has-associated-control': [
        'error',
        { assert: 'either', depth: 4, controlComponents: ['Select'] },
      ],
      // A divider, a box on the picture and a page that scrolls sideways are moved by keys.
      'jsx-a11y-x/no-noninteractive-tabindex': [
        'error',
        { tags: [], roles: ['separator', 'group', 'region', 'tabpanel'], allowExpressionValues: true },
      ],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none' },
      ],
      // Interfaces hold functions, not methods: they may be taken out and passed on.
      '@typescript-eslint/method-signature-style': 'error',
      '@typescript-eslint/no-unused-expressions': ['error', { allowTernary: true, allowShortCircuit: true }],
      'no-sequences': 'error',
      'no-restricted-syntax': ['error', ...silentCatch],
      'no-console': ['error', { allow: ['error', 'log'] }],
      'max-params': ['error', 4],
      complexity: ['error', 20],
    },
  },
  {
    files: ['server/**/*.ts'],
    ignores: ['server/platform/media/ffmpeg.ts', 'server/**/*.test.ts', 'server/**/test-*.ts'],
    rules: { 'no-restricted-syntax': ['error', ...silentCatch, oneDoor] },
  },
  {
    files: ['web/**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 200, skipBlankLines: true, skipComments: true }] },
  },
  {
    // What a teacher watches here is her own take, before it has captions; homes get theirs with every film.
    files: ['web/stations/**'],
    rules: { 'jsx-a11y-x/media-has-caption': 'off' },
  },
)
