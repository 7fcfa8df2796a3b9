import prettier from "eslint-config-prettier";
import vue from "eslint-plugin-vue";
import typescript from "typescript-eslint";

export default typescript.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  ...typescript.configs.recommended,
  ...vue.configs["flat/recommended"],
  { files: ["**/*.vue"], languageOptions: { parserOptions: { parser: typescript.parser } } },
  {
    rules: {
      // The compiler tells undefined names better.
      "no-undef": "off",
      "vue/multi-word-component-names": "off",
      // Props that may be left out are typed so; undefined is their default.
      "vue/require-default-prop": "off",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
    },
  },
  {
    // What is longer is about more than one thing, and is split by subject.
    files: ["src/composables/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: { "max-lines-per-function": ["error", { max: 80 }] },
  },
  prettier,
);
