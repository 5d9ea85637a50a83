/** What the parts of the Make screen are given. */

import type { RunOpen, StepState, StepWorked } from "../api/client";
import type { Happening, useRun } from "./useRun";

export type Live = Omit<ReturnType<typeof useRun>, "run" | "error"> & { run: RunOpen; zone: string };

export interface CurrentProps {
  run: RunOpen;
  step: StepWorked;
  standing: StepState;
  at: number;
  tell: (what: Happening) => void;
  undo: Live["undo"];
  redo: Live["redo"];
  zone: string;
}
