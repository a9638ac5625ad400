import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['node_modules/', '.next/', 'next-env.d.ts', '*.config.js', '.dependency-cruiser.cjs', 'coverage/'] },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}', 'e2e/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', prefer: 'type-imports' },
      ],
      'no-eval': 'error',
      'no-implied-eval': 'error',
      'no-new-func': 'error',
      eqeqeq: 'error',
      'no-console': 'error',
      // The formatter sets the lines; what it cannot break is broken by hand. Drawings in quotes are data.
      'max-len': [
        'error',
        {
          code: 120,
          ignorePattern: "<svg|<g |<path|<rect|path: |^\\s*['\"]M-?\\d|^\\s*.?'M-?\\d",
          ignoreRegExpLiterals: true,
        },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/tests/**'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core gives the same answer every time: use seeded().' },
        { object: 'Date', property: 'now' },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'localStorage', 'performance'],
    },
  },
  {
    // Small stores may be switched off, and throw then: one door knows.
    files: ['src/app/**', 'src/store/**', 'src/ui/**', 'src/workers/**'],
    ignores: ['src/ui/common/kept.ts'],
    rules: { 'no-restricted-globals': ['error', 'localStorage', 'sessionStorage'] },
  },
  {
    // Ids are taken apart in one place.
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/core/ids.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.property.name=/^(split|indexOf|lastIndexOf)$/][arguments.0.value='.']",
          message: 'Ids are taken apart in core/ids.ts only.',
        },
        {
          selector: "CallExpression[callee.property.name='startsWith'] > TemplateLiteral[quasis.1.value.raw='.']",
          message: 'Whose part an id is says isPartOf of core/ids.ts.',
        },
        {
          selector: "CallExpression[callee.property.name=/^(startsWith|slice)$/] > Literal[value='layer.']",
          message: 'Layers are told by idOfLayer of core/ids.ts.',
        },
        {
          selector:
            "JSXAttribute[name.name='dangerouslySetInnerHTML'], MemberExpression[property.name=/^(inner|outer)HTML$/]",
          message: 'No HTML is made from data.',
        },
      ],
    },
  },
  {
    files: ['**/*.test.ts', '**/tests/**', 'bench/**', 'fuzz/**', 'scripts/**', 'e2e/**'],
    rules: { 'no-console': 'off', '@typescript-eslint/no-explicit-any': 'off' },
  },
  { files: ['scripts/*.mjs'], languageOptions: { globals: { process: 'readonly', console: 'readonly' } } },
);
