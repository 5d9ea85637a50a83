/** Next time: what to change, by how much, what is expected of it, and why; one press makes it the sheet's next revision. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type NextTime as Told, type WayCard } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { ErrorNotice } from "../ui/ErrorNotice";
import { newId } from "../ui/newId";
import { capital } from "../ui/words";
import { fixed } from "../words/numbers";
import { said } from "../words/said";

type Proposal = Told["proposals"][number];

export function NextTime({ batch, sheet, way }: { batch: number; sheet: number | null; way: WayCard }) {
  const query = useQuery({
    queryKey: ["next", batch],
    queryFn: () => ask(api.GET("/api/log/{batch_id}/next", { params: { path: { batch_id: batch } } })),
  });
  if (!query.data || (query.data.proposals.length === 0 && query.data.by_craft.length === 0)) return null;
  return (
    <section aria-label={t`Next time`} className="mt-6">
      <h2 className="text-xl">
        <Trans>Next time</Trans>
      </h2>
      {query.data.proposals.map((proposal) => (
        <OneProposal key={proposal.kind} one={proposal} batch={batch} sheet={sheet} way={way} />
      ))}
      {query.data.by_craft.length > 0 && (
        <div className="hairline py-3">
          <p className="text-ink2">
            <Trans>By the craft's rule; no ratio moves these:</Trans>
          </p>
          <ul>
            {query.data.by_craft.map((item) => (
              <li key={item.words} className="py-1">
                <Trans>
                  {capital(item.words)} ({item.said} of {item.of} say so): <b>{item.does}</b>.
                </Trans>
              </li>
            ))}
          </ul>
        </div>
      )}
      {query.data.penalties.length > 0 && (
        <div className="mt-4">
          <h3 className="font-bold">
            <Trans>What costs most of the liking</Trans>
          </h3>
          <ul>
            {query.data.penalties.slice(0, 4).map((penalty) => (
              <li key={penalty.words} className="hairline flex items-center justify-between gap-4 py-1">
                <span>
                  <Trans>
                    {capital(penalty.words)}, {penalty.share_pct.toFixed(0)} in a hundred
                  </Trans>
                </span>
                <b>
                  <Trans>{fixed(penalty.drop, 1)} less</Trans>
                </b>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

const HEADS = { please: t`To please`, learn: t`To learn` } as const;

function OneProposal(props: { one: Proposal; batch: number; sheet: number | null; way: WayCard }) {
  const { one, batch, sheet, way } = props;
  const client = useQueryClient();
  const take = useMutation({
    mutationFn: (uid: string) =>
      ask(
        api.POST("/api/log/{batch_id}/next", { params: { path: { batch_id: batch } }, body: { kind: one.kind, uid } }),
      ),
    onSuccess: () => {
      for (const key of ["sheet", "sheets"]) void client.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <div className="hairline py-3">
      <p className="text-lg">
        <b className="text-look">{HEADS[one.kind]}.</b> <b>{one.says}</b>
      </p>
      {one.kind === "please" && <Marks expected={one.expected} way={way} />}
      <p className="text-ink2">{one.because.join(" ")}</p>
      {sheet !== null && one.changes.length > 0 && !take.data && (
        <button
          type="button"
          className="pick mt-2 min-h-12 px-6"
          disabled={take.isPending}
          onClick={() => take.mutate(newId())}
        >
          <Trans>Make it the next revision of its sheet</Trans>
        </button>
      )}
      {take.data && (
        <p role="status" className="text-green">
          <Trans>The sheet says so now: its revision {take.data.revision}.</Trans>
        </p>
      )}
      <ErrorNotice error={take.error} />
    </div>
  );
}

const W = 460;
const ROW = 46;

/** Where each taste lies now, and where it is expected then, with nine tries in ten. */
function Marks({ expected, way }: { expected: Proposal["expected"]; way: WayCard }) {
  const x = (mark: number) => W / 2 + Math.max(-2.4, Math.min(2.4, mark)) * 82;
  const rows = expected.flatMap((item) => {
    const scale = way.tastes.find((taste) => taste.id === item.taste);
    return scale ? [{ one: item, scale }] : [];
  });
  return (
    <Drawing
      viewBox={`0 0 ${W} ${rows.length * ROW}`}
      className="my-2 block w-full max-w-[480px]"
      role="img"
      aria-label={rows.map(({ one }) => t`${said(one.taste)}: expected ${one.words}`).join("; ")}
    >
      {rows.map(({ one, scale }, i) => (
        <g key={one.taste} transform={`translate(0 ${i * ROW})`}>
          <line x1={x(-2)} x2={x(2)} y1="14" y2="14" stroke="var(--color-ink)" />
          <line x1={x(0)} x2={x(0)} y1="4" y2="24" stroke="var(--color-green)" strokeWidth="2" />
          <line
            x1={x(one.low)}
            x2={x(one.high)}
            y1="14"
            y2="14"
            stroke="var(--color-green)"
            strokeWidth="9"
            opacity="0.35"
          />
          <circle cx={x(one.now)} cy="14" r="6" fill="var(--color-sheet)" stroke="var(--color-ink)" strokeWidth="1.6" />
          <circle cx={x(one.after)} cy="14" r="7" fill="var(--color-green)" />
          <text x={x(-2)} y="38" style={{ fontSize: legible(13.5) }} fill="var(--color-ink2)">
            {scale.too_little}
          </text>
          <text x={x(2)} y="38" style={{ fontSize: legible(13.5) }} textAnchor="end" fill="var(--color-ink2)">
            {scale.too_much}
          </text>
        </g>
      ))}
    </Drawing>
  );
}
