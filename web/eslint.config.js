import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(...ts.configs.recommended, ...vue.configs['flat/recommended'], {
  files: ['**/*.vue', '**/*.ts'],
  languageOptions: { parserOptions: { parser: ts.parser } },
  rules: {
    'vue/max-attributes-per-line': 'off',
    'vue/singleline-html-element-content-newline': 'off',
    'vue/multiline-html-element-content-newline': 'off',
    'vue/html-self-closing': 'off',
    'vue/multi-word-component-names': 'off',
    'vue/html-closing-bracket-newline': 'off',
    'vue/html-indent': 'off',
    'vue/first-attribute-linebreak': 'off',
    'vue/no-ref-as-operand': 'error',
  },
})
