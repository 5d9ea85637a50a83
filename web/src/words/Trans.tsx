/** A sentence of the catalogue as part of a page. `<Trans>` of the macro is turned into this when the front end is built. */

import { i18n } from "@lingui/core";
import type { TransProps } from "@lingui/react";
import { TransNoContext } from "@lingui/react/server";
import { Fragment } from "react";

/** The language of a page changes only with the page, so none of it has to be told. */
export function Trans(props: TransProps) {
  return <TransNoContext {...props} values={props.values && safe(props.values)} lingui={{ i18n }} />;
}

/** What somebody wrote is never read as a mark of a sentence: "<0>" in a title stays what it is. */
function safe(values: Record<string, unknown>) {
  const put = (value: unknown) =>
    typeof value === "string" && value.includes("<") ? <Fragment key="as it is">{value}</Fragment> : value;
  return Object.fromEntries(Object.entries(values).map(([key, value]) => [key, put(value)]));
}
