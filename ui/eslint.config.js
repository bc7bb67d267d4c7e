import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'

export default typescript.config(
    { ignores: ['dist', 'src/api/generated'] },
    ...typescript.configs.strict,
    ...vue.configs['flat/recommended'],
    {
        files: ['**/*.vue'],
        languageOptions: {
            parserOptions: { parser: typescript.parser },
            globals: {
                window: 'readonly',
                document: 'readonly',
                navigator: 'readonly',
                localStorage: 'readonly',
                EventSource: 'readonly',
                ResizeObserver: 'readonly',
                FileReader: 'readonly',
                fetch: 'readonly',
            },
        },
    },
    {
        rules: {
            // Prettier lays the code out.
            'vue/html-indent': 'off',
            'vue/max-attributes-per-line': 'off',
            'vue/singleline-html-element-content-newline': 'off',
            'vue/multiline-html-element-content-newline': 'off',
            'vue/html-self-closing': 'off',
            'vue/html-closing-bracket-newline': 'off',
            'vue/first-attribute-linebreak': 'off',
            'vue/multi-word-component-names': 'off',
        },
    },
)
