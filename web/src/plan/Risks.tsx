/** Before it is made: what is likeliest to go wrong by the sheet's own numbers, and why. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { api, ask, type WorkResult } from "../api/client";
import { Causes } from "../ui/Causes";

export function Risks({ sheet, of }: { sheet: number; of: WorkResult }) {
  const query = useQuery({
    queryKey: [
      "risks",
      sheet,
      of.facts["mix.batch_g"]?.value,
      of.facts["mix.water_g"]?.value,
      of.facts["shape.skin_mm"]?.value,
    ],
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}/risks", { params: { path: { sheet_id: sheet } } })),
  });
  if (!query.data?.length) return null;
  return (
    <section aria-label={t`What is likeliest to go wrong`} className="mt-5 border-l-4 border-amber pl-4 print:hidden">
      <h3 className="text-xl">
        <Trans>What is likeliest to go wrong</Trans>
      </h3>
      {query.data.slice(0, 3).map((fault) => (
        <div key={fault.id} className="mt-2">
          <b>{fault.seen}</b>
          <Causes fault={{ ...fault, causes: fault.causes.filter((cause) => cause.speaks_for.length > 0) }} />
          <p className="text-ink2">
            <Trans>Instead: {fault.next_time}.</Trans>
          </p>
        </div>
      ))}
    </section>
  );
}
