/** When nothing is left to do: taste, count, say how it came out; and what a rehearsal showed. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Link, useNavigate } from "react-router";
import { cooks, useRole } from "../api/roles";
import type { Flow, Making } from "../runs/useFlow";
import { RehearsalReport } from "./RehearsalReport";
import { useStepKeys } from "./useStepKeys";

export function AllDone({ makings, undo }: { makings: Making[]; undo: Flow["undo"] }) {
  const navigate = useNavigate();
  const logs = cooks(useRole());
  const pathOf = (making: Making) => (making.batch ? `/log/${making.batch}` : `/make/${making.id}/outcome`);
  const open = makings.filter((making) => !making.batch);
  const first = open[0] ?? makings[0];
  const rehearsed = (first?.pace ?? 1) > 1;
  useStepKeys({ forward: () => first && logs && navigate(pathOf(first)), undo: undo?.take ?? null });
  return (
    <section className="py-8">
      <h1 className="text-[clamp(34px,5.4vw,66px)]">
        {rehearsed ? t`That was the rehearsal.` : t`It is on the table.`}
      </h1>
      {rehearsed && first ? (
        <RehearsalReport run={first.id} />
      ) : (
        <p className="mt-4 text-2xl text-ink2">
          <Trans>Count it, weigh it, taste it, then say how it came out: the next one is better for it.</Trans>
        </p>
      )}
      <div className="mt-8 flex flex-wrap gap-4">
        {(logs ? makings : []).map((making) => (
          <Link
            key={making.id}
            to={pathOf(making)}
            className="pick min-h-16 px-8 text-xl"
            data-on={making === first ? "true" : undefined}
          >
            {making.batch ? t`To the log` : t`How did it come out?`}
            {makings.length > 1 && <span className="font-normal">{making.title}</span>}
          </Link>
        ))}
        {undo && (
          <button type="button" className="pick min-h-16 px-8 text-xl" onClick={undo.take}>
            <Trans>Undo the last</Trans>
          </button>
        )}
      </div>
    </section>
  );
}
