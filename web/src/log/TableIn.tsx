/** Batches or weighings out of a table: looked at row by row, and put in by a second press. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { ErrorNotice } from "../ui/ErrorNotice";
import { FileButton } from "../ui/FileButton";
import { newId } from "../ui/newId";

const MOST_SHOWN = 12;

export function TableIn() {
  const client = useQueryClient();
  const look = useMutation({
    mutationFn: async (file: File) => {
      const text = await file.text();
      return { text, told: await ask(api.POST("/api/tables", { body: { text, keep: false } })) };
    },
  });
  const keep = useMutation({
    mutationFn: (uid: string) =>
      ask(api.POST("/api/tables", { body: { text: look.data?.text ?? "", keep: true, uid } })),
    onSuccess: () => client.invalidateQueries(),
  });
  const weighings = look.data?.told.of === "weighings";
  const rows = look.data?.told.rows ?? [];
  const good = rows.filter((row) => !row.problem && !row.here).length;
  const bad = rows.filter((row) => row.problem);
  const here = rows.length - good - bad.length;
  return (
    <section aria-label={t`A table in`} className="mt-3">
      <FileButton
        accept=".csv,text/csv,text/plain"
        onFile={(file) => {
          keep.reset();
          look.mutate(file);
        }}
      >
        <Trans>Batches or weighings from a table</Trans>
      </FileButton>
      <ErrorNotice error={look.error ?? keep.error} />
      {look.data && !keep.data && (
        <div className="mt-3 border-l-4 border-bean pl-4">
          <p>
            <Trans>
              {weighings
                ? plural(good, { one: "# weighing", other: "# weighings" })
                : plural(good, { one: "# batch", other: "# batches" })}{" "}
              to put in
              {here > 0 ? t`; ${here} here already` : ""}
              {bad.length > 0 ? t`; ${bad.length} left out:` : "."}
            </Trans>
          </p>
          <ul className="text-ink2">
            {bad.slice(0, MOST_SHOWN).map((row) => (
              <li key={row.number}>
                <Trans>
                  row {row.number}, {row.says}: {row.problem}
                </Trans>
              </li>
            ))}
            {bad.length > MOST_SHOWN && (
              <li>
                <Trans>and {plural(bad.length - MOST_SHOWN, { one: "# more", other: "# more" })}</Trans>
              </li>
            )}
          </ul>
          {good > 0 && (
            <button
              type="button"
              className="pick mt-2 px-6"
              data-on="true"
              disabled={keep.isPending}
              onClick={() => keep.mutate(newId())}
            >
              <Trans>Put {good === 1 ? t`it` : t`the ${good}`} in</Trans>
            </button>
          )}
        </div>
      )}
      {keep.data && (
        <p role="status" className="mt-2 text-green">
          {keep.data.of === "weighings"
            ? t`${plural(keep.data.added, { one: "# bench", other: "# benches" })} came in.`
            : t`${plural(keep.data.added, { one: "# batch", other: "# batches" })} came in.`}
        </p>
      )}
    </section>
  );
}
