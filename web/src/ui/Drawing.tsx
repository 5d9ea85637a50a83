/**
 * A drawing that knows how small it is shown: `--shrunk` is how many of its own units make a pixel, where that is more than
 * one, so that its labels (dimension.tsx) can keep the least size that is read.
 */

import { type ComponentProps, type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";

export function Drawing({ ref, ...props }: ComponentProps<"svg">) {
  const own = useRef<SVGSVGElement | null>(null);
  const both = useCallback(
    (node: SVGSVGElement | null) => {
      own.current = node;
      if (typeof ref === "function") ref(node);
      else if (ref) ref.current = node;
    },
    [ref],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: another view box is another scale
  useLayoutEffect(() => {
    const svg = own.current;
    if (!svg?.getScreenCTM || typeof ResizeObserver === "undefined") return;
    const look = () => {
      const to = svg.getScreenCTM();
      const scale = to ? Math.hypot(to.a, to.b) : 1;
      svg.style.setProperty("--shrunk", scale > 0 ? Math.max(1, 1 / scale).toFixed(3) : "1");
    };
    look();
    const watch = new ResizeObserver(look);
    watch.observe(svg);
    return () => watch.disconnect();
  }, [props.viewBox]);
  return <svg ref={both} {...props} />;
}

/**
 * How wide a chart is to be drawn, in its own units, and where that is looked at: as wide as there is room, so that a unit is
 * a pixel, but no wider than `most` and no narrower than `least`.
 */
export function useRoom<T extends HTMLElement>(most: number, least = 240): [RefObject<T | null>, number] {
  const ref = useRef<T | null>(null);
  const [room, setRoom] = useState(most);
  useEffect(() => {
    const box = ref.current;
    if (!box || typeof ResizeObserver === "undefined") return;
    const watch = new ResizeObserver(() => {
      const wide = box.clientWidth;
      if (wide > 0) setRoom(Math.round(Math.min(most, Math.max(least, wide))));
    });
    watch.observe(box);
    return () => watch.disconnect();
  }, [most, least]);
  return [ref, room];
}
