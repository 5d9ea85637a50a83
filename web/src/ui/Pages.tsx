/** To the pages of a long list; nothing when there is but one. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";

interface Props {
  page: number;
  pages: number;
  total: number;
  what: string;
  onTurn: (page: number) => void;
}

export function Pages({ page, pages, total, what, onTurn }: Props) {
  if (pages < 2) return null;
  return (
    <nav aria-label={t`Pages of ${what}`} className="mt-3 flex items-baseline gap-4">
      <button type="button" className="pick" disabled={page <= 1} onClick={() => onTurn(page - 1)}>
        <Trans>newer</Trans>
      </button>
      <span className="text-ink2">
        <Trans>
          page <b className="text-ink">{page}</b> of {pages}, {total} {what}
        </Trans>
      </span>
      <button type="button" className="pick" disabled={page >= pages} onClick={() => onTurn(page + 1)}>
        <Trans>older</Trans>
      </button>
    </nav>
  );
}
