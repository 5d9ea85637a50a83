/** What was written by a newer Kemble than this page is of: it asks to be loaded anew. What was typed is kept in this browser. */

import { Trans } from "@lingui/react/macro";
import { LinkButton } from "./LinkButton";

export function OlderThanKemble() {
  return (
    <p role="alert" className="mt-2 border-l-4 border-amber pl-4">
      <Trans>
        <b className="text-look">This page is older than Kemble.</b> Some of this it cannot show; nothing is lost.{" "}
        <LinkButton onClick={() => location.reload()}>Load it anew</LinkButton>
      </Trans>
    </p>
  );
}
