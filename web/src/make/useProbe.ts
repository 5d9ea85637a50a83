/** The thermometer as this page hears it; a simulated one is stuck into the step for as long as the page listens. */

import { t } from "@lingui/core/macro";
import { useEffect, useState } from "react";
import { api, ask, type ProbeLive, Refused, type RunOpen } from "../api/client";

export const SILENT: ProbeLive = { state: "waiting", celsius: 0, name: "", says: "" };
const LOST: ProbeLive = { ...SILENT, state: "gone", says: t`The kitchen's server cannot be reached.` };

/** `told`: the server has heard all that was done here; before that it may know of nothing in the heat. */
export function useProbe(run: number, step: string, told: boolean, device: RunOpen["probe"]) {
  const simulated = device === "simulated";
  const [live, setLive] = useState<ProbeLive>(SILENT);
  useEffect(() => {
    if (device === "none" || !told) return;
    const stick = (body: { do: "into" | "out"; run?: number; step?: string }) =>
      ask(api.POST("/api/probe/stick", { body })).catch((error) =>
        setLive(error instanceof Refused && error.problems.length ? { ...LOST, says: error.message } : LOST),
      );
    if (simulated) void stick({ do: "into", run, step });
    const stream = new EventSource("/api/probe/live");
    stream.addEventListener("reading", (event) => setLive(JSON.parse(event.data) as ProbeLive));
    stream.addEventListener("error", () => setLive(LOST));
    return () => {
      stream.close();
      if (simulated) void stick({ do: "out" });
    };
  }, [device, simulated, run, step, told]);
  return live;
}
