import vueTs from '@vue/eslint-config-typescript'
import pluginVue from 'eslint-plugin-vue'

export default [
  { ignores: ['dist/**', 'src/api/schema.d.ts', 'src/components.d.ts'] },
  ...pluginVue.configs['flat/recommended'],
  ...vueTs({}, { rootDir: import.meta.dirname }),
  {
    rules: {
      // Prettier decides the line breaks.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'no-console': 'error',
    },
  },
]
