/** What is read from the server, under the keys that the pages share. */

import { QueryClient, type QueryKey, queryOptions } from "@tanstack/react-query";
import { pageIn } from "../words/language";
import { api, ask, type LogPage, Refused, type SheetPage } from "./client";
import { pauseAfter } from "./pauses";

/** Nobody was there, or nobody known here asked. */
const isWithout = (error: unknown) =>
  error instanceof Refused && [0, 401, 403].includes(error.status) && error.problems[0]?.path !== "role";

/** What may go well another time: the network, the session, a busy or stumbling server. */
export const mayPass = (error: unknown) =>
  isWithout(error) || (error instanceof Refused && (error.status === 429 || error.status >= 500));

// "always": the service worker answers when the network does not, so the browser's own idea of it says nothing.
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      networkMode: "always",
      retry: (count, error) => mayPass(error) && count < 1,
      retryDelay: pauseAfter,
      // A page that could not be shown is tried again by itself.
      refetchInterval: (query) => (query.state.status === "error" && mayPass(query.state.error) ? 5_000 : false),
    },
    // What a press asks for waits for the network and the session; a server that stumbles is told after a few tries.
    mutations: {
      networkMode: "always",
      retry: (count, error) => isWithout(error) || (mayPass(error) && count < 2),
      retryDelay: pauseAfter,
    },
  },
});

/** What a save answered is newer than whatever was asked for before it, and may yet be answered after it. */
export async function settle<T>(client: QueryClient, queryKey: QueryKey, answer: T) {
  await client.cancelQueries({ queryKey, exact: true });
  client.setQueryData<T>(queryKey, answer);
}

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => ask(api.GET("/api/session")),
});
export const kitchenQuery = queryOptions({
  queryKey: ["kitchen"],
  queryFn: async () => {
    const answer = await ask(api.GET("/api/kitchen"));
    pageIn(answer.kitchen.locale);
    return answer;
  },
});
/** While the kitchen is being saved, sheets wait: what they would be worked with is about to change. */
export const kitchenSaving = ["kitchen-saving"] as const;
export const commonStepsQuery = queryOptions({
  queryKey: ["common-steps"],
  staleTime: Number.POSITIVE_INFINITY,
  queryFn: () => ask(api.GET("/api/common-steps")),
});
export const estimatesQuery = queryOptions({
  queryKey: ["estimates"],
  staleTime: Number.POSITIVE_INFINITY,
  queryFn: () => ask(api.GET("/api/estimates")),
});
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
/** Numbers that are still to be worked out are asked for again after so long. */
const AGAIN_MS = 700;

/** A page of the sheets, or of those that are sought. */
export const sheetsQuery = (page = 1, find = "", size = 20, by: "changed" | "title" | "way" = "changed") =>
  queryOptions({
    queryKey: ["sheets", page, find, size, by],
    placeholderData: (before: SheetPage | undefined) => before,
    queryFn: () => ask(api.GET("/api/sheets", { params: { query: { page, find, size, by } } })),
    refetchInterval: ({ state }) => (state.data?.sheets.some((sheet) => sheet.pending) ? AGAIN_MS : false),
  });
export const droppedQuery = queryOptions({ queryKey: ["dropped"], queryFn: () => ask(api.GET("/api/dropped")) });
export const occasionsQuery = queryOptions({
  queryKey: ["occasions"],
  queryFn: () => ask(api.GET("/api/occasions")),
  refetchInterval: ({ state }) => (state.data?.some((item) => item.pending) ? AGAIN_MS : false),
});
export const runsQuery = queryOptions({
  queryKey: ["runs"],
  refetchInterval: 10_000,
  queryFn: () => ask(api.GET("/api/runs")),
});
/** A page of the batches of a way; of the first that has any, when none is named. */
/** What of the log is sought: words, a verdict, from a day to a day. */
export interface LogSought {
  find?: string;
  verdict?: LogPage["batches"][number]["verdict"];
  sheet?: number;
  since?: string;
  until?: string;
}
export const logQuery = (way: string | null, page: number, sought: LogSought = {}) =>
  queryOptions({
    queryKey: ["log", way, page, sought],
    placeholderData: (before: LogPage | undefined) => before,
    queryFn: () => ask(api.GET("/api/log", { params: { query: { way, page, ...sought } } })),
  });
export const batchQuery = (id: number) =>
  queryOptions({
    queryKey: ["batch", id],
    queryFn: () => ask(api.GET("/api/log/{batch_id}", { params: { path: { batch_id: id } } })),
  });
export const occasionQuery = (id: number) =>
  queryOptions({
    queryKey: ["occasion", id],
    queryFn: () => ask(api.GET("/api/occasions/{occasion_id}", { params: { path: { occasion_id: id } } })),
  });
export const toEatQuery = queryOptions({
  queryKey: ["to-eat"],
  queryFn: () => ask(api.GET("/api/to-eat")),
});
export const feastsQuery = queryOptions({
  queryKey: ["feasts"],
  staleTime: 3_600_000,
  queryFn: () => ask(api.GET("/api/feasts", { params: { query: { days: 400 } } })),
});
