/** Batches or weighings out of a table: looked at row by row, and put in by a second press. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { newId } from "../ui/newId";
import { Sorry } from "../ui/Sorry";
import { plural } from "../ui/words";

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
  const [one, many] = look.data?.told.of === "weighings" ? ["weighing", "weighings"] : ["batch", "batches"];
  const rows = look.data?.told.rows ?? [];
  const good = rows.filter((row) => !row.problem && !row.here).length;
  const bad = rows.filter((row) => row.problem);
  const here = rows.length - good - bad.length;
  return (
    <section aria-label="A table in" className="mt-3">
      <FileButton
        accept=".csv,text/csv,text/plain"
        onFile={(file) => {
          keep.reset();
          look.mutate(file);
        }}
      >
        Batches or weighings from a table
      </FileButton>
      <Sorry error={look.error ?? keep.error} />
      {look.data && !keep.data && (
        <div className="mt-3 border-l-4 border-bean pl-4">
          <p>
            {plural(good, one, many)} to put in
            {here > 0 ? `; ${here} here already` : ""}
            {bad.length > 0 ? `; ${bad.length} left out:` : "."}
          </p>
          <ul className="text-ink2">
            {bad.slice(0, MOST_SHOWN).map((row) => (
              <li key={row.number}>
                row {row.number}, {row.says}: {row.problem}
              </li>
            ))}
            {bad.length > MOST_SHOWN && <li>and {plural(bad.length - MOST_SHOWN, "more", "more")}</li>}
          </ul>
          {good > 0 && (
            <button
              type="button"
              className="pick mt-2 px-6"
              data-on="true"
              disabled={keep.isPending}
              onClick={() => keep.mutate(newId())}
            >
              Put {good === 1 ? "it" : `the ${good}`} in
            </button>
          )}
        </div>
      )}
      {keep.data && (
        <p role="status" className="mt-2 text-green">
          {keep.data.of === "weighings"
            ? `${plural(keep.data.added, "bench", "benches")} came in.`
            : `${plural(keep.data.added, "batch", "batches")} came in.`}
        </p>
      )}
    </section>
  );
}
