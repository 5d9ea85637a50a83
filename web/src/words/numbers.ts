/** Numbers as they are written where the page is read: 1.5, or 1,5. */

import { locale } from "./language";

const mark = new Intl.NumberFormat(locale()).formatToParts(1.5).find((part) => part.type === "decimal")?.value ?? ".";

const marked = (written: string) => (mark === "." ? written : written.replace(".", mark));

/** With so many decimals: "1.50". */
export const fixed = (value: number, decimals: number) => marked(value.toFixed(decimals));

/** With at most so many decimals, and none that says nothing: "1.5", "2". */
export const trimmed = (value: number, decimals: number) => marked(String(+value.toFixed(decimals)));
