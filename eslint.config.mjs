// What scripts are held to beyond their form, which is prettier's.
import js from '@eslint/js';
import globals from 'globals';

const rules = {
    ...js.configs.recommended.rules,
    eqeqeq: ['error', 'always', { null: 'ignore' }],
    'no-restricted-syntax': [
        'error',
        { selector: 'MemberExpression[object.name="location"][property.name="reload"]', message: 'refreshPage() refreshes in place.' },
    ],
    'no-var': 'error',
    'prefer-const': 'error',
};

export default [
    { ignores: ['public/build/**', 'var/**', 'vendor/**'] },
    { files: ['assets/**/*.js'], languageOptions: { globals: globals.browser }, rules },
    {
        files: ['**/*.mjs'],
        languageOptions: { globals: { ...globals.node, ...globals.browser } },
        rules: { ...rules, 'no-restricted-syntax': 'off' },
    },
];
