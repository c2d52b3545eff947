import js from '@eslint/js';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['node_modules', 'src/api/schema.d.ts', 'languages/*.js', 'bill-of-materials/*.js', '*.js'] },
  js.configs.recommended,
  { files: ['**/*.{ts,tsx}'], extends: [tseslint.configs.strictTypeChecked] },
  jsxA11y.flatConfigs.recommended,
  hooks.configs.flat['recommended-latest'],
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // `onClick={() => close()}` says what it does.
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      // Indexing is checked by the compiler; where the index is known to be good, a bang says so.
      '@typescript-eslint/no-non-null-assertion': 'off',
    },
  },
  {
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "JSXAttribute[name.name='style'] Property[key.name=/^(font|color|background|border|margin|padding)/] > Literal",
          message: 'Type, colour and gaps stand in the stylesheets (ui/layout.css, theme/tokens.css).',
        },
      ],
      // The virtual list cannot be compiled by the React compiler; it is not used here.
      'react-hooks/incompatible-library': 'off',
      // For the same compiler, and a third of the time of the whole lint.
      'react-hooks/static-components': 'off',
      'jsx-a11y/label-has-associated-control': [
        'error',
        { controlComponents: ['Input', 'Input.TextArea', 'NumberField', 'Select'], depth: 3 },
      ],
    },
  },
);
