/** The other clocks, and what comes next. */

import type { RunOpen } from "../api/client";
import { TextLink } from "../ui/LinkButton";
import { clock, timeOfDay } from "../ui/words";

interface DockProps {
  run: RunOpen;
  focus: string | null;
  at: number;
  zone: string;
  onChoose: (step: string) => void;
}

export function Dock({ run, focus, at, zone, onChoose }: DockProps) {
  const { state, plan } = run;
  const words = new Map(plan.scheduled.map((one) => [one.step.id, one.step]));
  const clocks = state.steps.filter((one) => one.status === "running" && one.id !== focus);
  const next = state.steps.find((one) => one.id === state.next && one.id !== focus);
  const steaming = state.steps.find((one) => one.status === "running" && words.get(one.id)?.window);
  const topUp = run.facts["heat.top_up_at_min"]?.value;
  return (
    <footer className="border-t border-ink bg-sheet">
      <ul className="mx-auto grid max-w-[1280px] auto-cols-fr sm:grid-flow-col">
        {steaming?.started && typeof topUp === "number" && (
          <li className="border-hair px-6 py-4 sm:border-r">
            <p className="text-ink2">Top up the water</p>
            <p className="text-[34px] leading-tight font-bold">
              {clock((Date.parse(steaming.started) + topUp * 60000 - at) / 1000)}
            </p>
            <p>{Number(run.facts["heat.top_up_ml"]?.value ?? 0).toFixed(0)} ml, boiling</p>
          </li>
        )}
        {clocks.map((one) => {
          const left = (Date.parse(one.due as string) - at) / 1000;
          return (
            <li key={one.id} className="border-hair sm:border-r">
              <button
                type="button"
                className="w-full px-6 py-4 text-left hover:bg-paper"
                onClick={() => onChoose(one.id)}
              >
                <span className="block text-ink2">{words.get(one.id)?.title}</span>
                <span className={`block text-[34px] leading-tight font-bold ${left < 0 ? "text-bean" : ""}`}>
                  {clock(left)}
                </span>
                <span>{left < 0 ? "over" : `until ${timeOfDay(one.due as string, zone)}`}</span>
              </button>
            </li>
          );
        })}
        {next && (
          <li className="border-hair">
            <button
              type="button"
              className="w-full px-6 py-4 text-left hover:bg-paper"
              onClick={() => onChoose(next.id)}
            >
              <span className="block text-ink2">Next for your hands, {timeOfDay(next.expected_starts, zone)}</span>
              <span className="mt-1 block text-xl font-bold">{words.get(next.id)?.title}</span>
              {words.get(next.id)?.asks && (
                <span className="block font-bold text-look">{words.get(next.id)?.asks}</span>
              )}
            </button>
          </li>
        )}
        <li className="px-6 py-4 sm:text-right">
          <TextLink to={run.batch ? `/log/${run.batch}` : `/make/${run.id}/outcome`}>Finish and log</TextLink>
        </li>
      </ul>
    </footer>
  );
}
