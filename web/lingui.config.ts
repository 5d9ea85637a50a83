import { defineConfig } from "@lingui/conf";
import { formatter } from "@lingui/format-po";

/** The words of the pages: English stands in the code, every other language in `kemble/words/<language>/pages.po`. */
const words = process.env.KEMBLE_WORDS ?? "<rootDir>/../kemble/words";

export default defineConfig({
  sourceLocale: "en",
  locales: ["en"],
  catalogs: [{ path: `${words}/{locale}/pages`, include: ["<rootDir>/src"], exclude: ["**/*.test.*"] }],
  format: formatter({ lineNumbers: false }),
  orderBy: "message",
  runtimeConfigModule: { Trans: ["#trans", "Trans"] },
});
