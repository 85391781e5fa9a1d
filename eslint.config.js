import js from "@eslint/js";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["build", ".react-router", "node_modules", "test-results", ".data"] },
  js.configs.recommended,
  {
    files: ["**/*.{ts,tsx}"],
    extends: [...tseslint.configs.recommendedTypeChecked, ...tseslint.configs.stylisticTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // Text from outside is cleaned of control characters in several places, on purpose.
      "no-control-regex": "off",
      "@typescript-eslint/no-non-null-assertion": "error",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/switch-exhaustiveness-check": [
        "error",
        { considerDefaultExhaustiveForUnions: true },
      ],
      // An empty value of the environment counts as not set.
      "@typescript-eslint/prefer-nullish-coalescing": ["error", { ignorePrimitives: { string: true } }],
      "@typescript-eslint/restrict-template-expressions": [
        "error",
        { allowNumber: true, allowNullish: true },
      ],
      "@typescript-eslint/no-empty-function": "off",
      // React Router throws responses to show them.
      "@typescript-eslint/only-throw-error": [
        "error",
        {
          allow: [
            { from: "lib", name: "Response" },
            { from: "package", name: "DataWithResponseInit", package: "react-router" },
          ],
        },
      ],
    },
  },
  {
    files: ["app/**/*.tsx"],
    ...jsxA11y.flatConfigs.recommended,
    languageOptions: { ...jsxA11y.flatConfigs.recommended.languageOptions, globals: globals.browser },
    rules: {
      ...jsxA11y.flatConfigs.recommended.rules,
      // Pages with one purpose, and fields that were asked for just now, take the focus.
      "jsx-a11y/no-autofocus": "off",
      // Controls of ours are named by their labels like those of the browser.
      "jsx-a11y/label-has-associated-control": [
        "error",
        { controlComponents: ["Controller", "LineInput", "Checkbox", "Select", "Picker"], depth: 4 },
      ],
    },
  },
  {
    files: ["app/**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      // It speaks of the React compiler, which does not build this program.
      "react-hooks/incompatible-library": "off",
    },
  },
  {
    files: ["app/**/*.tsx"],
    ignores: ["app/**/*.test.tsx", "app/testing/**"],
    rules: {
      // What people read is kept by screen, where it can be read in one go and translated.
      "no-restricted-syntax": [
        "error",
        {
          selector: "JSXElement:not([openingElement.name.name='code']) > JSXText[value=/\\p{L}{2}/u]",
          message: "Words of a screen are kept in app/words",
        },
        {
          selector:
            "JSXAttribute[name.name=/^(aria-label|label|title|placeholder|hint|alt|words|heading)$/] > Literal[value=/\\p{L}{2}/u]",
          message: "Words of a screen are kept in app/words",
        },
        {
          selector:
            "JSXAttribute[name.name=/^(aria-label|label|title|placeholder|hint|alt|words|heading)$/] TemplateElement[value.raw=/\\p{L}{2}/u]",
          message: "Words of a screen are kept in app/words",
        },
        {
          selector:
            ":not(NewExpression[callee.name='Error'], CallExpression[callee.object.name='console']) > Literal[value=/^\\p{Lu}\\p{Ll}* \\p{Ll}/u]",
          message: "Words of a screen are kept in app/words",
        },
      ],
    },
  },
  {
    files: ["core/**/*.ts"],
    // Words of letters and of inquiries, in their languages, and examples.
    ignores: [
      "core/**/*.test.ts",
      "core/**/testing*",
      "core/testing/**",
      "core/words/**",
      "core/checks/phrases.ts",
      "core/checks/surroundings.ts",
      "core/compose/stationery.ts",
      "core/document/definition.ts",
      "core/document/html.ts",
      "core/mail/quote.ts",
      "core/mail/subject.ts",
      "core/ranking/words/**",
      "core/tokens/catalogue.ts",
    ],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector:
            ":not(NewExpression[callee.name='Error']) > Literal[value=/\\p{L}{2},? \\p{L}{2}/u]:not([value='ready to check'])",
          message: "What people read is kept in core/words",
        },
        {
          selector:
            ":not(NewExpression[callee.name='Error'] > TemplateLiteral) > TemplateElement[value.raw=/\\p{L}{2},? \\p{L}{2}/u]",
          message: "What people read is kept in core/words",
        },
      ],
    },
  },
  {
    files: ["**/*.test.ts"],
    rules: {
      // Matchers of Jest are typed as any.
      "@typescript-eslint/no-unsafe-assignment": "off",
    },
  },
  { files: ["**/*.{js,mjs,cjs}"], languageOptions: { globals: globals.node } },
  { files: ["public/**/*.js"], languageOptions: { globals: globals.browser } },
);
