/** All clocks of all runs, on every page: each named, going down to its next look; what calls is answered here. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useEffect } from "react";
import { Link, useLocation } from "react-router";
import { clock } from "../ui/words";
import { hear, useAlarms } from "./useAlarms";

/** What else stands at the foot of a page stands on top of the strip: `--strip` is how high it is. */
function tellHeight(strip: HTMLElement | null) {
  if (!strip || typeof ResizeObserver === "undefined") return;
  const root = document.documentElement.style;
  const watch = new ResizeObserver(() => root.setProperty("--strip", `${strip.offsetHeight}px`));
  watch.observe(strip);
  return () => {
    watch.disconnect();
    root.removeProperty("--strip");
  };
}

export function ClockStrip() {
  const { clocks, calling, now } = useAlarms();
  const { pathname } = useLocation();
  const first = clocks[0];
  const told = first ? `(${clock((first.next - now) / 1000)} ${first.title}) ` : "";
  useEffect(() => {
    document.title = `${told}${document.title.replace(/^\([−\d:]+ [^)]*\) /, "")}`;
  }, [told]);
  const elsewhere = /^\/make\/\d+$/.test(pathname) ? [] : clocks; // there they stand in its own dock
  const calls = calling.filter((alarm) => pathname !== `/make/${alarm.run}` || alarm.kind !== "first");
  if (elsewhere.length === 0 && calls.length === 0) return null;
  return (
    <aside
      ref={tellHeight}
      aria-label={t`Clocks`}
      className="sticky bottom-0 z-30 border-t border-ink bg-sheet px-4 py-2 print:hidden sm:px-10"
    >
      <div className="mx-auto flex max-w-[1200px] flex-wrap items-center gap-x-8 gap-y-2">
        {calls.map((call) => (
          <span key={call.key} role="alert" className="flex items-center gap-4">
            <b className={call.kind === "latest" ? "text-bean" : "text-look"}>{call.says}</b>
            <button type="button" className="pick min-h-16 px-6" onClick={() => hear(call.key)}>
              <Trans>Heard</Trans>
            </button>
          </span>
        ))}
        {elsewhere.map((eachClock) => {
          const left = (eachClock.next - now) / 1000;
          return (
            <Link
              key={eachClock.key}
              to={`/make/${eachClock.run}`}
              className="flex items-baseline gap-2 text-ink no-underline"
            >
              <b className={`text-[28px] leading-none ${now > eachClock.latest ? "text-bean" : ""}`}>{clock(left)}</b>
              <span>
                {eachClock.title}
                {now > eachClock.latest && (
                  <b className="text-bean">
                    <Trans>, over</Trans>
                  </b>
                )}
                <span className="block text-sm text-ink2">{eachClock.runTitle}</span>
              </span>
            </Link>
          );
        })}
      </div>
    </aside>
  );
}
