import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ReactNode } from "react";
import { useReach } from "../api/connection";
import { useFormatters } from "../ui/formatters";

/** An empty list, or one that is not known: no answer is not nothing, and one that is still on its way is neither. */
export function Nothing({ known, what, children }: { known: boolean; what: string; children: ReactNode }) {
  const { sinceWords } = useFormatters();
  const { away, heard } = useReach();
  if (!known && !away) return null;
  if (known) return <p className="mt-2 text-ink2">{children}</p>;
  return (
    <p className="mt-2 text-look" data-known="false">
      <Trans>
        What is {what} is not known{heard ? t` since ${sinceWords(heard)}` : t` yet`}.
      </Trans>
    </p>
  );
}
