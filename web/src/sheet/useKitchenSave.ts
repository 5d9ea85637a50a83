/**
 * Saving the kitchen's settings: one save after another, each as the change that was made, replayed on the settings as
 * they are by then. What was not answered lies in this browser, and is sent again after a reload.
 */

import { type QueryClient, useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, ask, type KitchenSettings, Refused } from "../api/client";
import { kitchenQuery, kitchenSaving, mayPass, settle } from "../api/queries";
import { newId } from "../ui/newId";
import { pageIn } from "../words/language";
import { replay } from "./merge";

interface Change {
  from: KitchenSettings;
  to: KitchenSettings;
  uid: string;
}

const KEPT = "kemble-kitchen-unsaved";
const kept = () => JSON.parse(localStorage.getItem(KEPT) ?? "[]") as Change[];
const keep = (all: Change[]) =>
  all.length ? localStorage.setItem(KEPT, JSON.stringify(all)) : localStorage.removeItem(KEPT);

/** The settings with what this browser has not saved yet. */
export const withUnsaved = (kitchen: KitchenSettings) =>
  kept().reduce((now, change) => replay(change.from, change.to, now).value, kitchen);

export function useKitchenSave() {
  const client = useQueryClient();
  const save = useMutation({
    mutationKey: kitchenSaving,
    scope: { id: "kitchen" },
    retry: (_, error) => mayPass(error) || (error instanceof Refused && error.status === 409),
    mutationFn: (change: Change) => put(client, change),
    onSuccess: async (answer) => {
      await settle(client, kitchenQuery.queryKey, answer);
      for (const key of ["sheets", "sheet", "plan", "larder", "dropped"])
        void client.invalidateQueries({ queryKey: [key] });
    },
    // Taken, or never to be taken: either way it is not sent again.
    onSettled: (answer, __, change) => {
      keep(kept().filter((eachChange) => eachChange.uid !== change.uid));
      pageIn(answer?.kitchen.locale);
    },
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what an earlier page left, once
  useEffect(() => {
    if (client.isMutating({ mutationKey: kitchenSaving }) === 0) for (const change of kept()) save.mutate(change);
  }, []);
  return {
    save: (from: KitchenSettings, to: KitchenSettings, onSuccess?: () => void) => {
      const change = { from, to, uid: newId() };
      keep([...kept(), change]);
      save.mutate(change, { onSuccess });
    },
    pending: save.isPending,
    waiting: save.failureCount > 0 && save.isPending,
    error:
      save.error ?? (save.failureReason instanceof Refused && stumbles(save.failureReason) ? save.failureReason : null),
  };
}

const stumbles = (error: Refused) => error.status >= 429;

async function put(client: QueryClient, { from, to, uid }: Change) {
  const now = await client.ensureQueryData(kitchenQuery);
  const kitchen = replay(from, to, now.kitchen).value;
  try {
    return await ask(api.PUT("/api/kitchen", { body: { kitchen, revision: now.revision, uid } }));
  } catch (error) {
    if (error instanceof Refused && error.status === 409) await client.fetchQuery({ ...kitchenQuery, staleTime: 0 }); // saved elsewhere: once more, on top of that
    throw error;
  }
}
