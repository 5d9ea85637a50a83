/** The tray of the simulated scale: put lumps on it, lift them off, pull its plug. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import { api, ask, type ScaleLive } from "../api/client";
import { limit } from "../api/limits";
import { WeightField } from "../ui/AmountField";

type Do = "put" | "pinch" | "lift" | "unplug" | "plug" | "garble";

interface Props {
  aim: number;
  state: ScaleLive["state"];
  /** A lump lies there that has not been taken down. */
  waiting: boolean;
}

export function SimulatedScale({ aim, state, waiting }: Props) {
  const [grams, setGrams] = useState(25);
  const [wrong, setWrong] = useState("");
  const load = (what: Do, amount: number | null = null) =>
    ask(api.POST("/api/scale/load", { body: { do: what, grams: amount } }))
      .then(() => setWrong(""))
      .catch(() => setWrong(t`The kitchen's server cannot be reached.`));
  const gone = state === "gone";
  return (
    <section aria-label={t`Simulated scale`} className="mt-2 border-l-4 border-hair pl-4">
      <p className="text-ink2">
        <Trans>The scale is a simulated one: load its tray here. A real one is attached as docs/scale.md says.</Trans>
      </p>
      <div className="mt-1 flex flex-wrap items-baseline gap-2">
        <button type="button" className="pick" disabled={waiting || gone} onClick={() => void load("pinch", aim)}>
          <Trans>Pinch one off</Trans>
        </button>
        <button type="button" className="pick" onClick={() => void load("lift")}>
          <Trans>Lift it off</Trans>
        </button>
        <WeightField
          label={t`or a lump of`}
          value={grams}
          within={limit("LoadScale.grams")}
          width="4rem"
          onChange={setGrams}
        />
        <button type="button" className="pick" onClick={() => void load("put", grams)}>
          <Trans>Put it on</Trans>
        </button>
        <button type="button" className="pick" onClick={() => void load(gone ? "plug" : "unplug")}>
          {gone ? t`Plug it in` : t`Pull the plug`}
        </button>
      </div>
      {wrong && (
        <p role="alert" className="text-bean">
          {wrong}
        </p>
      )}
    </section>
  );
}
