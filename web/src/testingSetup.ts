/** Before each test: what modules remember of the last one is forgotten, for test files share them. */

import { i18n } from "@lingui/core";
import { beforeEach } from "vitest";

i18n.loadAndActivate({ locale: "en", messages: {} });

beforeEach(async () => {
  if (typeof window === "undefined") return;
  const { noteResponse: heardFrom, signedIn } = await import("./api/connection");
  const { queryClient } = await import("./api/queries");
  signedIn();
  heardFrom(new Response("{}"), 0);
  localStorage.clear();
  sessionStorage.clear();
  queryClient.clear();
});
