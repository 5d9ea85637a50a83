/** An occasion being edited: what is typed stands at once, and is saved one change after another; the day follows.
 *
 * What is not saved yet lies in this browser, with the revision that it was typed over: a reload sends it again, and
 * never over what somebody else has saved meanwhile. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, ask, type Occasion, type OccasionOpen, Refused } from "../api/client";
import { mayPass, occasionQuery, settle } from "../api/queries";
import { newId } from "../ui/newId";

interface Unsaved {
  occasion: Occasion;
  uid: string;
  revision: number | null;
}

const LOOK_MS = 500; // how often a day that is being planned is looked at

const keyOf = (id: number) => `kemble-occasion-${id}`;

function unsaved(id: number): Unsaved | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? "null") as Unsaved | null;
  } catch {
    return null;
  }
}

function keep(id: number, unsaved: Unsaved) {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(unsaved));
  } catch {
    // No room left in this browser: it stands in the page, and is saved from there.
  }
}

export function useOccasion(id: number) {
  const client = useQueryClient();
  const query = useQuery({
    ...occasionQuery(id),
    refetchInterval: ({ state }) => (state.data?.planning && !state.data.planning.stopped ? LOOK_MS : false),
  });
  const [draft, setDraft] = useState<Occasion | null>(() => unsaved(id)?.occasion ?? null);
  const known = () => client.getQueryData<OccasionOpen>(occasionQuery(id).queryKey)?.revision ?? null;
  const save = useMutation({
    scope: { id: `occasion-${id}` },
    retry: (count, error) => mayPass(error) && count < 20,
    mutationFn: async ({ occasion, uid, revision }: Omit<Unsaved, "revision"> & { revision?: number | null }) => {
      const body = { occasion, uid, revision: revision ?? known() };
      return ask(api.PUT("/api/occasions/{occasion_id}", { params: { path: { occasion_id: id } }, body }));
    },
    onSuccess: async (answer, { occasion, uid }) => {
      await settle(client, occasionQuery(id).queryKey, answer);
      setDraft((now) => (now === occasion ? null : now));
      const kept = unsaved(id);
      if (kept?.uid === uid) localStorage.removeItem(keyOf(id));
      else if (kept) keep(id, { ...kept, revision: answer.revision });
      void client.invalidateQueries({ queryKey: ["occasions"] });
    },
    onError: (error) => {
      // Saved elsewhere: what stands there is fetched, and what was typed here stays in its fields.
      if (error instanceof Refused && error.status === 409)
        void client.invalidateQueries({ queryKey: ["occasion", id] });
    },
  });
  const sent = useRef(false);
  const { mutate } = save;
  useEffect(() => {
    if (sent.current) return;
    sent.current = true;
    const left = unsaved(id);
    if (!left) return;
    setDraft(left.occasion);
    mutate(left);
  }, [id, mutate]);
  const occasion = draft ?? query.data?.occasion ?? null;
  return {
    open: query.data,
    error: query.error,
    occasion,
    saving: save.isPending,
    problem: save.error,
    /** The day as it stands belongs to what is shown: nothing is on its way. */
    settled: draft == null && !save.isPending && !query.data?.planning,
    /** Takes what is saved, and lets go of what was typed here. */
    drop: () => {
      localStorage.removeItem(keyOf(id));
      setDraft(null);
      save.reset();
    },
    edit: (change: Partial<Occasion>) => {
      if (!occasion) return;
      const next = { occasion: { ...occasion, ...change }, uid: newId() };
      setDraft(next.occasion);
      keep(id, { ...next, revision: known() });
      save.mutate(next);
    },
  };
}
