import js from '@eslint/js';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['node_modules', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  jsxA11y.flatConfigs.recommended,
  hooks.configs.flat['recommended-latest'],
  {
    rules: {
      // The virtual list cannot be compiled by the React compiler; it is not used here.
      'react-hooks/incompatible-library': 'off',
      'jsx-a11y/label-has-associated-control': [
        'error',
        { controlComponents: ['Input', 'Input.TextArea', 'NumberField', 'Select'], depth: 3 },
      ],
      // Indexing is checked by the compiler; where the index is known to be good, a bang says so.
      '@typescript-eslint/no-non-null-assertion': 'off',
    },
  },
);
