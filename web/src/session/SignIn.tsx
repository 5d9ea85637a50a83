/** Asked on every device but the kitchen's own machine. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { Sorry } from "../ui/Sorry";

export function SignIn() {
  const client = useQueryClient();
  const [typed, setTyped] = useState({ username: "owner", password: "" });
  const enter = useMutation({
    mutationFn: () => ask(api.POST("/api/session", { body: typed })),
    onSuccess: () => client.invalidateQueries(),
  });
  const error = enter.error;
  return (
    <main className="mx-auto max-w-md px-4 py-16">
      <h1 className="font-title text-4xl text-bean">Kemble</h1>
      <form
        className="mt-8 grid gap-4 text-lg"
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate();
        }}
      >
        <label>
          <span className="block text-ink2">Name</span>
          <input
            className="write w-full"
            autoComplete="username"
            required
            value={typed.username}
            onChange={(event) => setTyped({ ...typed, username: event.target.value })}
          />
        </label>
        <label>
          <span className="block text-ink2">Password</span>
          <input
            className="write w-full"
            type="password"
            autoComplete="current-password"
            required
            value={typed.password}
            onChange={(event) => setTyped({ ...typed, password: event.target.value })}
          />
        </label>
        <Sorry error={error} />
        <button type="submit" className="pick min-h-12" data-on="true" disabled={enter.isPending}>
          Come in
        </button>
        <p className="text-base text-ink2">The password is set on the kitchen's own machine, on its Kitchen page.</p>
      </form>
    </main>
  );
}
