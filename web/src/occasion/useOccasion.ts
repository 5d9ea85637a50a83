/** An occasion being edited: what is typed stands at once, and is saved one change after another; the day follows. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask, type Occasion, type OccasionOpen, Refused } from "../api/client";
import { mayPass, occasionQuery } from "../api/queries";
import { newId } from "../ui/newId";

export function useOccasion(id: number) {
  const client = useQueryClient();
  const query = useQuery(occasionQuery(id));
  const [draft, setDraft] = useState<Occasion | null>(null);
  const save = useMutation({
    scope: { id: `occasion-${id}` },
    retry: (count, error) => mayPass(error) && count < 20,
    mutationFn: async ({ occasion, uid }: { occasion: Occasion; uid: string }) => {
      const known = client.getQueryData<OccasionOpen>(occasionQuery(id).queryKey);
      const body = { occasion, uid, revision: known?.revision ?? null };
      return ask(api.PUT("/api/occasions/{occasion_id}", { params: { path: { occasion_id: id } }, body }));
    },
    onSuccess: (answer, { occasion }) => {
      client.setQueryData(occasionQuery(id).queryKey, answer);
      setDraft((now) => (now === occasion ? null : now));
      void client.invalidateQueries({ queryKey: ["occasions"] });
    },
    onError: (error) => {
      // Saved elsewhere: what stands there is fetched, and what was typed here stays in its fields.
      if (error instanceof Refused && error.status === 409)
        void client.invalidateQueries({ queryKey: ["occasion", id] });
    },
  });
  const occasion = draft ?? query.data?.occasion ?? null;
  return {
    open: query.data,
    error: query.error,
    occasion,
    saving: save.isPending,
    problem: save.error,
    /** The day as it stands belongs to what is shown: nothing is on its way. */
    settled: draft == null && !save.isPending,
    edit: (change: Partial<Occasion>) => {
      if (!occasion) return;
      const next = { ...occasion, ...change };
      setDraft(next);
      save.mutate({ occasion: next, uid: newId() });
    },
  };
}
