/** How the sources are read, the same by the build and by the tests: words first, by the catalogue's macro, then React. */

import { lingui } from "@lingui/vite-plugin";
import babel from "@rolldown/plugin-babel";
import react from "@vitejs/plugin-react";

/** English stands in the code, so its messages stay there; a macro is looked for only where one is imported. */
const words = {
  preset: { plugins: [["@lingui/babel-plugin-lingui-macro", { stripMessageField: false }]] },
  rolldown: { filter: { code: /@lingui\/(core|react)\/macro/ } },
};

export const reading = () => [react(), lingui(), babel({ presets: [words] })];
