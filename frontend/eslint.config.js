import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/api/generated.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  hooks.configs.flat.recommended,
  {
    languageOptions: {
      globals: globals.browser,
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      // Numbers in sentences and style values are wanted.
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      // Handlers that only start something return nothing on purpose.
      "@typescript-eslint/no-confusing-void-expression": ["error", { ignoreArrowShorthand: true }],
    },
  },
);
