/** The day on paper: one page by the clock, with cue and weight; one of what to set out. On the screen a list to read. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { api, ask, type Plan } from "../api/client";
import { useFormatters } from "../ui/formatters";
import { capital, dayOf, HANDS_WORDS } from "../ui/words";
import { lasts } from "./DayLanes";
import type { Scheduled } from "./slip";

interface Props {
  plan: Plan;
  titles: readonly string[];
  title: string;
  zone: string;
  /** Only what this person does. */
  who?: string;
  /** What is to be bought for it. */
  sheets?: readonly number[];
}

export function DayOnPaper({ plan, titles, title, zone, who, sheets = [] }: Props) {
  const { timeOfDay, weightWords } = useFormatters();
  const steps = plan.scheduled.filter((item) => !who || item.who === who);
  const days = [...new Set(steps.map((step) => dayOf(step.starts, zone)))];
  const first = new Map<string, Scheduled>();
  for (const eachStep of steps) for (const tool of eachStep.step.tools) if (!first.has(tool)) first.set(tool, eachStep);
  return (
    <section data-paper aria-label={t`The day by its clock`} className="mt-8">
      <h2 className="text-xl">{who ? `${title}: ${who}` : title}</h2>
      {titles.length > 1 && (
        <ol className="mt-1 flex flex-wrap gap-x-6 text-ink2">
          {titles.map((dish, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a dish goes by its number; two may have one title
            <li key={i}>
              <b className="text-ink">{i + 1}</b> {dish}
            </li>
          ))}
        </ol>
      )}
      {days.map((day) => (
        <div key={day}>
          <h3 className="mt-3 text-lg">{day}</h3>
          <ol className="gap-x-12 lg:columns-2 print:columns-1">
            {steps
              .filter((step) => dayOf(step.starts, zone) === day)
              .map((step) => (
                <li
                  key={`${step.dish} ${step.step.id}`}
                  className="hairline flex break-inside-avoid items-baseline gap-3 py-1"
                >
                  <b className="w-20 shrink-0">{timeOfDay(step.starts, zone)}</b>
                  <span className="flex-1">
                    {titles.length > 1 && <b className="mr-1">{step.dish + 1}</b>}
                    {step.step.title}
                    {step.step.cue && <span className="block text-sm text-ink2">{step.step.cue.question}</span>}
                    {step.step.target && (
                      <span className="block text-sm">
                        {step.step.target.label}: <b>{weightWords(step.step.target.grams, 0)}</b>
                      </span>
                    )}
                  </span>
                  <span className="text-right text-ink2">
                    {lasts(step)}
                    {step.step.hands === "free" ? "" : `, ${HANDS_WORDS[step.step.hands]}`}
                    {step.who && !who ? <span className="block text-sm">{step.who}</span> : null}
                  </span>
                </li>
              ))}
          </ol>
        </div>
      ))}
      <p className="mt-2 text-bean">
        <b>{timeOfDay(plan.serve, zone)}</b>{" "}
        <b>
          <Trans>on the table</Trans>
        </b>
      </p>
      <ToWeighOut steps={steps} titles={titles} />
      {first.size > 0 && (
        <div className="mt-6">
          <h2 className="text-xl">
            <Trans>To set out</Trans>
          </h2>
          <ul className="gap-x-12 lg:columns-2 print:columns-2">
            {[...first].map(([tool, item]) => (
              <li key={tool} className="hairline flex justify-between gap-4 py-1">
                <span>{capital(tool)}</span>
                <span className="text-ink2">
                  {days.length > 1 && `${dayOf(item.starts, zone)}, `}
                  {timeOfDay(item.starts, zone)}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {sheets.length > 0 && <ToBuy sheets={sheets} />}
    </section>
  );
}

/** What can be weighed out before the work begins: a bowl for each step, and for each moment of it at which something goes in. */
function ToWeighOut({ steps, titles }: { steps: readonly Scheduled[]; titles: readonly string[] }) {
  const { weightWords } = useFormatters();
  const bowls = steps.flatMap(({ step, dish }) => {
    const ahead = [...step.to_hand, ...(step.brings ?? [])].filter((item) => !item.made);
    const moments = [...new Set(ahead.map((item) => item.act ?? ""))];
    return moments.map((act) => ({
      key: `${dish} ${step.id} ${act}`,
      dish,
      title: act ? `${step.title}: ${act}` : step.title,
      items: ahead.filter((item) => (item.act ?? "") === act),
    }));
  });
  if (bowls.length === 0) return null;
  return (
    <div className="mt-6 print:break-before-page">
      <h2 className="text-xl">
        <Trans>To weigh out</Trans>
      </h2>
      <ol className="gap-x-12 lg:columns-2 print:columns-2">
        {bowls.map((bowl) => (
          <li key={bowl.key} className="hairline break-inside-avoid py-1">
            <span className="text-ink2">
              {titles.length > 1 && <b className="mr-1 text-ink">{bowl.dish + 1}</b>}
              {bowl.title}
            </span>
            <ul>
              {bowl.items.map((item) => (
                <li key={item.name} className="flex items-baseline gap-4">
                  <span className="flex-1">{item.name}</span>
                  <span className="text-sm text-ink2">{item.household}</span>
                  <b className="w-20 text-right">{weightWords(item.grams, item.grams < 20 ? 1 : 0)}</b>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
    </div>
  );
}

/** What all of it needs together, less what is in the larder. */
function ToBuy({ sheets }: { sheets: readonly number[] }) {
  const { weightWords } = useFormatters();
  const wanted = [...new Set(sheets)].map((sheet) => ({
    sheet,
    times: sheets.filter((eachSheet) => eachSheet === sheet).length,
  }));
  const list = useQuery({
    queryKey: ["shopping", wanted],
    queryFn: () => ask(api.POST("/api/shopping", { body: { wanted } })),
  });
  const lines = list.data?.lines.filter((line) => line.buy_g > 0) ?? [];
  if (lines.length === 0) return null;
  return (
    <div className="mt-6">
      <h2 className="text-xl">
        <Trans>To buy</Trans>
      </h2>
      <ul className="gap-x-12 lg:columns-2">
        {lines.map((line) => (
          <li key={line.name} className="hairline flex justify-between gap-4 py-1">
            <span>{line.name}</span>
            <b>{weightWords(line.buy_g, 0)}</b>
          </li>
        ))}
      </ul>
    </div>
  );
}
