/** Shape: the piece in cross-section and what runs out first; or the tin, and how deep it stands. */

import type { StationProps } from "../../sheet/SheetPage";
import { BallShape } from "./BallShape";
import { TinShape } from "./TinShape";

export function Shape(props: StationProps) {
  const drawing = props.bench.worked.drawings.shape;
  if (props.way.form === "tin") return <TinShape {...props} drawing={drawing?.kind === "tin" ? drawing : null} />;
  return <BallShape {...props} drawing={drawing?.kind === "ball" ? drawing : null} />;
}
