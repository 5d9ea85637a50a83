/** A day that takes longer than a second to plan: how far it is, and the press that takes what is found by now. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ask, type OccasionOpen } from "../api/client";
import { serverNow } from "../api/connection";
import { occasionQuery, settle } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { fixed } from "../words/numbers";

interface Props {
  id: number;
  planning: NonNullable<OccasionOpen["planning"]>;
  /** Whether a day of before is shown below. */
  before: boolean;
}

export function Planning({ id, planning, before }: Props) {
  const client = useQueryClient();
  const path = { occasion_id: id };
  const change = useMutation({
    mutationFn: (stop: boolean) =>
      ask(
        stop
          ? api.DELETE("/api/occasions/{occasion_id}/planning", { params: { path } })
          : api.POST("/api/occasions/{occasion_id}/planning", { params: { path } }),
      ),
    onSuccess: (answer) => settle(client, occasionQuery(id).queryKey, answer),
  });
  const { stopped, gap_pct: gap } = planning;
  const below = before ? t` What lies below is the day as it was before.` : "";
  return (
    <section aria-label={t`Planning`} className="mb-6 border-l-4 border-bean pl-4 print:hidden">
      <p role="status" className="text-xl">
        {stopped ? t`Stopped before a day was found.${below}` : `${planning.says}.${below}`}
      </p>
      {!stopped && (
        <p className="mt-1 text-ink2">
          {gap != null && <Closing gap={gap} />}
          <Since since={planning.since} />
        </p>
      )}
      <p className="mt-2">
        <button
          type="button"
          className="pick min-h-12 px-6"
          disabled={change.isPending}
          onClick={() => change.mutate(!stopped)}
        >
          {stopped ? t`Plan it` : gap != null ? t`Take the one that is found` : t`Stop`}
        </button>
      </p>
      <ErrorNotice error={change.error} />
    </section>
  );
}

/** The plan in hand and the best that there can be, drawing together. */
function Closing({ gap }: { gap: number }) {
  const apart = Math.min(100, Math.max(0, gap));
  return (
    <Trans>
      <span className="relative my-2 block h-3 max-w-md" aria-hidden="true">
        <span className="absolute inset-x-0 top-1.5 border-t border-ink2" />
        <span className="absolute top-0 h-3 border-l-4 border-green" />
        <span className="absolute top-0 h-3 border-l-4 border-bean" style={{ left: `${apart}%` }} />
      </span>
      One is found, at most {fixed(gap, 1)} % from the best there can be.{" "}
    </Trans>
  );
}

function Since({ since }: { since: string }) {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(serverNow()), 500);
    return () => clearInterval(timer);
  }, []);
  return <span aria-hidden="true">{Math.max(0, Math.round((now - Date.parse(since)) / 1000))} s</span>;
}
