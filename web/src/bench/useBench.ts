/** A bench as this page sees it. Its marks go into an outbox that outlives a reload and a loss of network. */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type NewMark } from "../api/client";
import { settle } from "../api/queries";
import { newId } from "../ui/newId";
import { useOutbox } from "../ui/useOutbox";

export function useBench(id: number) {
  const client = useQueryClient();
  const key = ["bench", id];
  const bench = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/benches/{bench_id}", { params: { path: { bench_id: id } } })),
  });
  const outbox = useOutbox<NewMark>(`kemble-marks-${id}`, async (mark) => {
    const answer = await ask(
      api.POST("/api/benches/{bench_id}/marks", { params: { path: { bench_id: id } }, body: mark }),
    );
    await settle(client, key, answer);
    if (mark.kind === "closed") void client.invalidateQueries({ queryKey: ["benches"] });
    void client.invalidateQueries({ queryKey: ["eye"] });
  });
  const mark = (kind: NewMark["kind"], grams: number | null = null) => outbox.tell({ uid: newId(), kind, grams });
  return { bench: bench.data, error: bench.error, mark, outbox };
}
