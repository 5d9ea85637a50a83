/** What is read from the server, under the keys that the pages share. */

import { QueryClient, queryOptions } from "@tanstack/react-query";
import { showTemperaturesIn } from "../ui/words";
import { api, ask, Refused } from "./client";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => error instanceof Refused && error.status === 0 && count < 4,
    },
  },
});

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => ask(api.GET("/api/session")),
});
export const kitchenQuery = queryOptions({
  queryKey: ["kitchen"],
  queryFn: async () => {
    const answer = await ask(api.GET("/api/kitchen"));
    showTemperaturesIn(answer.kitchen.temperature_unit);
    return answer;
  },
});
/** While the kitchen is being saved, sheets wait: what they would be worked with is about to change. */
export const kitchenSaving = ["kitchen-saving"] as const;
export const waysQuery = queryOptions({
  queryKey: ["ways"],
  staleTime: Number.POSITIVE_INFINITY,
  queryFn: () => ask(api.GET("/api/ways")),
});
export const larderQuery = queryOptions({
  queryKey: ["larder"],
  staleTime: Number.POSITIVE_INFINITY,
  queryFn: () => ask(api.GET("/api/larder")),
});
export const familiesQuery = queryOptions({
  queryKey: ["parts"],
  staleTime: Number.POSITIVE_INFINITY,
  queryFn: () => ask(api.GET("/api/parts")),
});
export const exchangesQuery = (ingredient: string) =>
  queryOptions({
    queryKey: ["larder", ingredient, "exchanges"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask(api.GET("/api/larder/{ingredient}/exchanges", { params: { path: { ingredient } } })),
  });
export const sheetsQuery = queryOptions({ queryKey: ["sheets"], queryFn: () => ask(api.GET("/api/sheets")) });
export const occasionsQuery = queryOptions({
  queryKey: ["occasions"],
  queryFn: () => ask(api.GET("/api/occasions")),
});
export const runsQuery = queryOptions({
  queryKey: ["runs"],
  refetchInterval: 10_000,
  queryFn: () => ask(api.GET("/api/runs")),
});
export const logQuery = queryOptions({ queryKey: ["log"], queryFn: () => ask(api.GET("/api/log")) });
export const batchQuery = (id: number) =>
  queryOptions({
    queryKey: ["log", id],
    queryFn: () => ask(api.GET("/api/log/{batch_id}", { params: { path: { batch_id: id } } })),
  });
