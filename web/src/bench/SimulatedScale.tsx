/** The tray of the simulated scale: put lumps on it, lift them off, pull its plug. */

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
      .catch(() => setWrong("The kitchen's server cannot be reached."));
  const gone = state === "gone";
  return (
    <section aria-label="Simulated scale" className="mt-2 border-l-4 border-hair pl-4">
      <p className="text-ink2">
        The scale is a simulated one: load its tray here. A real one is attached as docs/scale.md says.
      </p>
      <div className="mt-1 flex flex-wrap items-baseline gap-2">
        <button type="button" className="pick" disabled={waiting || gone} onClick={() => void load("pinch", aim)}>
          Pinch one off
        </button>
        <button type="button" className="pick" onClick={() => void load("lift")}>
          Lift it off
        </button>
        <WeightField
          label="or a lump of"
          value={grams}
          within={limit("LoadScale.grams")}
          width="4rem"
          onChange={setGrams}
        />
        <button type="button" className="pick" onClick={() => void load("put", grams)}>
          Put it on
        </button>
        <button type="button" className="pick" onClick={() => void load(gone ? "plug" : "unplug")}>
          {gone ? "Plug it in" : "Pull the plug"}
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
