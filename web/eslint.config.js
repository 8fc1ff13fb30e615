import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

/** Rules of layout are Prettier's, not ours. */
const layout = Object.fromEntries(
  [
    'max-attributes-per-line',
    'singleline-html-element-content-newline',
    'multiline-html-element-content-newline',
    'html-self-closing',
    'html-closing-bracket-newline',
    'html-indent',
    'first-attribute-linebreak',
  ].map((rule) => [`vue/${rule}`, 'off']),
)

export default ts.config({ ignores: ['src/api/schema.ts'] }, ...ts.configs.recommended, ...vue.configs['flat/recommended'], {
  files: ['**/*.vue', '**/*.ts'],
  languageOptions: {
    parserOptions: { parser: ts.parser, projectService: true, extraFileExtensions: ['.vue'], tsconfigRootDir: import.meta.dirname },
  },
  rules: {
    ...layout,
    'vue/multi-word-component-names': 'off',
    'vue/no-ref-as-operand': 'error',
    '@typescript-eslint/no-floating-promises': 'error',
  },
})
