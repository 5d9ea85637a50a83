/** Dragging in a drawing: the thing goes where it is put at once; the worked sheet catches up with it. */

import { type PointerEvent, useEffect, useRef, useState } from "react";

/** A pointer's place in the units of a drawing. */
export function pointIn(svg: SVGSVGElement | null, event: PointerEvent): DOMPoint {
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg?.getScreenCTM()?.inverse());
}

/**
 * `aim` is where it was put, until `settled` (what the server last said) changes and nothing is being dragged.
 * Spread `canvas` on the svg and call `grab` when the handle is pressed. `onMove` is told at every move, or with
 * `whenDropped` only where it was let go: then nothing but the drawing works while it is dragged.
 */
export function useAim<T>(
  settled: string,
  place: (at: DOMPoint) => T,
  onMove?: (value: T) => void,
  whenDropped = false,
) {
  const [aim, setAim] = useState<T | null>(null);
  const last = useRef<T | null>(null);
  const dragging = useRef(false);
  const svg = useRef<SVGSVGElement>(null);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new answer is what ends an aim
  useEffect(() => {
    if (!dragging.current) setAim(null);
  }, [settled]);

  const put = (value: T) => {
    setAim(value);
    last.current = value;
    if (!(whenDropped && dragging.current)) onMove?.(value);
  };
  const drop = () => {
    if (!dragging.current) return;
    dragging.current = false;
    if (whenDropped && last.current != null) onMove?.(last.current);
    last.current = null;
  };
  return {
    aim,
    put,
    grab: (event: PointerEvent) => {
      svg.current?.setPointerCapture(event.pointerId);
      dragging.current = true;
    },
    canvas: {
      ref: svg,
      onPointerMove: (event: PointerEvent) => dragging.current && put(place(pointIn(svg.current, event))),
      onPointerUp: drop,
      onPointerCancel: drop,
    },
  };
}
