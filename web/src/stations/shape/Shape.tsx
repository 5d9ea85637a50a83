/** Shape: a piece in cross-section and what runs out first; or tins, or a bag, and how deep it stands in them. */

import type { StationProps } from "../props";
import { BagShape } from "./BagShape";
import { PieceShape } from "./PieceShape";
import { TinShape } from "./TinShape";

export function Shape(props: StationProps) {
  const drawing = props.editing.worked.drawings.shape;
  if (drawing?.kind === "tin" && drawing.bag) return <BagShape {...props} drawing={drawing} />;
  if (drawing?.kind === "tin" || props.way.form === "tin")
    return <TinShape {...props} drawing={drawing?.kind === "tin" ? drawing : null} />;
  return <PieceShape {...props} drawing={drawing?.kind === "ball" ? drawing : null} />;
}
