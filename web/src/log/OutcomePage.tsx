/** After a run: how did it come out? */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Navigate, useNavigate, useParams } from "react-router";
import { api, ask, type BatchOutcome } from "../api/client";
import { waysQuery } from "../api/queries";
import { MixMap } from "../stations/mix/MixMap";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { LinkButton } from "../ui/LinkButton";
import { newId } from "../ui/newId";
import { forgetKept } from "../ui/usePersistentState";
import { OutcomeForm } from "./OutcomeForm";

export default function OutcomePage() {
  const id = Number(useParams().runId);
  const keptAs = `kemble-outcome-${id}`;
  const navigate = useNavigate();
  const client = useQueryClient();
  const ways = useQuery(waysQuery);
  const run = useQuery({
    queryKey: ["run", id],
    queryFn: () => ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
  });
  const save = useMutation({
    mutationFn: (body: BatchOutcome) =>
      ask(api.POST("/api/runs/{run_id}/outcome", { params: { path: { run_id: id } }, body })),
    onSuccess: (batch) => {
      forgetKept(keptAs);
      for (const key of ["log", "runs", "run", "sheet"]) client.invalidateQueries({ queryKey: [key] });
      navigate(`/log/${batch.id}`, { replace: true }); // the browser's Back is no way to an empty form
    },
  });
  const giveUp = useMutation({
    mutationFn: () => ask(api.DELETE("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
    onSuccess: () => {
      for (const key of ["runs", "dropped"]) client.invalidateQueries({ queryKey: [key] });
      navigate("/", { replace: true });
    },
  });
  useEffect(() => {
    document.title = t`How did it come out? · Kemble`;
  }, []);
  const way = ways.data?.find((item) => item.id === run.data?.way);
  if (run.data?.batch && !save.isPending) return <Navigate to={`/log/${run.data.batch}`} replace />;
  if (!run.data || !way) return <Waiting error={run.error ?? ways.error} />;
  const open = run.data.state.steps.filter((step) => step.status !== "done").length;
  const error = save.error ?? giveUp.error;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>How did it come out?</Trans>
        </h1>
      }
    >
      <div className="mt-6 grid gap-x-12 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]">
        <section aria-label={t`Tasting`}>
          <p className="text-lg">
            {run.data.title}
            {open > 0 && (
              <span className="text-look">
                <Trans>: {open} steps are still open. Putting it in the log finishes the run.</Trans>
              </span>
            )}
          </p>
          <ErrorNotice error={error} />
          <OutcomeForm
            way={way}
            start={{ tastes: {}, faults: [], note: "", pieces: null, grams: null, kept: [] }}
            told={{
              pieces: Number(run.data.facts["shape.pieces"]?.value ?? run.data.facts["cut.pieces"]?.value) || undefined,
            }}
            roles={run.data.lines.map((line) => line.part)}
            busy={save.isPending}
            keptAs={keptAs}
            onSave={(outcome) => save.mutate({ ...outcome, uid: newId() })}
          />
          <LinkButton className="mt-6" onClick={() => giveUp.mutate()}>
            <Trans>Leave it out of the log and drop this run</Trans>
          </LinkButton>
        </section>
        <section aria-label={t`Where it stood`} className="lg:sticky lg:top-4 lg:self-start">
          <h2 className="text-xl">
            <Trans>Where it stood</Trans>
          </h2>
          <MixMap
            way={way}
            dots={[]}
            hydration={Number(run.data.facts["mix.hydration_pct"]?.value)}
            sugar={Number(run.data.facts["mix.sugar_pct"]?.value)}
          />
        </section>
      </div>
    </Frame>
  );
}
