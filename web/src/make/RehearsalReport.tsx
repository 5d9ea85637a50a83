/** What a rehearsal showed: where hands clashed, what would have burnt, which windows would have been missed. */

import { t } from "@lingui/core/macro";
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";

const HEADS = [
  ["hands", t`Where hands clashed`, t`Hands were free when they were wanted.`],
  ["burnt", t`What would have burnt`, t`Nothing stood past its latest.`],
  ["missed", t`Which windows were missed`, t`Everything came in its time.`],
  ["table", t`The table`, t`On the table in time.`],
] as const;

export function RehearsalReport({ run }: { run: number }) {
  const query = useQuery({
    queryKey: ["report", run],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/report", { params: { path: { run_id: run } } })),
  });
  const report = query.data?.report;
  if (!report) return null;
  return (
    <div className="mt-5 grid gap-x-12 gap-y-5 lg:grid-cols-2">
      {HEADS.map(([key, head, nothing]) => (
        <section key={key} aria-label={head}>
          <h2 className="text-2xl">{head}</h2>
          {report[key].length === 0 ? (
            <p className="text-lg text-green">{nothing}</p>
          ) : (
            <ul className="text-lg">
              {report[key].slice(0, 6).map((item) => (
                <li key={item.says} className="hairline flex items-center gap-4 py-1.5">
                  <svg width="90" height="14" aria-hidden="true" className="shrink-0">
                    <rect width={Math.min(90, 4 + item.minutes * 2)} height="14" fill="var(--color-bean)" />
                  </svg>
                  {item.says}
                </li>
              ))}
            </ul>
          )}
        </section>
      ))}
    </div>
  );
}
