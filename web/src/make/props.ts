/** What the parts of the Make screen are given. */

import type { StepResult, StepState } from "../api/client";
import type { Flow, Happening, Making } from "../runs/useFlow";

/** A step of one of the runs that are made together. */
export interface InHand {
  making: Making;
  step: StepResult;
  standing: StepState;
}

export interface CurrentProps extends InHand {
  at: number;
  tell: (what: Happening) => void;
  undo: Flow["undo"];
  redo: Flow["redo"];
  /** Nothing that was told waits to be sent: devices that follow the run know where it stands. */
  told: boolean;
  zone: string;
}
