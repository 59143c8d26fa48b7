import next from 'eslint-config-next';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['.data/**', '.next/**', 'node_modules/**', 'next-env.d.ts'] },
  ...next,
  ...tseslint.configs.strictTypeChecked.map((config) => ({ ...config, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      // Numbers read well in template text; everything else must be turned into words on purpose.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: false },
      ],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      // What takes more takes an object, so that its parts are named where it is called.
      '@typescript-eslint/max-params': ['error', { max: 6 }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  {
    files: ['**/*.test.ts', 'tests/**'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
);
