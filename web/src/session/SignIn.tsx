/** The door: a name and a password, unless this browser came with the key that the start command prints. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
import { useEffect, useState } from "react";
import { api, ask, Refused } from "../api/client";
import { signedIn, useReach } from "../api/connection";
import { mayPass } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Field } from "./Field";

const LOOK_MS = 3_000;

export function SignIn({ error }: { error?: Error | null }) {
  return (
    <main className="mx-auto max-w-md px-4 py-16">
      <h1 className="font-title text-4xl text-bean">Kemble</h1>
      <ErrorNotice error={error} className="mt-6" />
      <Door />
    </main>
  );
}

/** Over the page when the session has run out in the middle of something: the page stays, and goes on afterwards. */
export function SignedOut() {
  const { signedOut } = useReach();
  const client = useQueryClient();
  useEffect(() => {
    if (!signedOut) return;
    // Come in by another tab, with a key perhaps, this one is in as well.
    const look = async () => {
      const session = await ask(api.GET("/api/session")).catch(() => null);
      if (!session?.signed_in) return;
      signedIn();
      void client.invalidateQueries();
    };
    const timer = window.setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [signedOut, client]);
  return (
    <AlertDialog.Root open={signedOut}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(28rem,calc(100vw-24px))] -translate-1/2 rounded-md border border-ink bg-sheet p-6">
          <AlertDialog.Title className="text-2xl">
            <Trans>Signed out meanwhile</Trans>
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            <Trans>What you did is kept here, and is sent as soon as you are in again.</Trans>
          </AlertDialog.Description>
          <Door />
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

function Door() {
  const client = useQueryClient();
  const [typed, setTyped] = useState({ username: "owner", password: "", code: "" });
  const enter = useMutation({
    mutationFn: () => ask(api.POST("/api/session", { body: typed })),
    retry: (tries, error) => mayPass(error) && tries < 2, // a 429 says itself when to come again
    onSuccess: () => {
      signedIn();
      void client.invalidateQueries();
    },
  });
  const asksForCode =
    typed.code !== "" ||
    (enter.error instanceof Refused && enter.error.problems.some((problem) => problem.path === "code"));
  return (
    <form
      className="mt-6 grid gap-4 text-lg"
      onSubmit={(event) => {
        event.preventDefault();
        enter.mutate();
      }}
    >
      <Field
        label={t`Name`}
        autoComplete="username"
        value={typed.username}
        onChange={(username) => setTyped({ ...typed, username })}
      />
      <Field
        label={t`Password`}
        type="password"
        autoComplete="current-password"
        value={typed.password}
        onChange={(password) => setTyped({ ...typed, password })}
      />
      {asksForCode && (
        <Field
          label={t`The six figures that your phone shows`}
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={7}
          autoFocus
          value={typed.code}
          onChange={(code) => setTyped({ ...typed, code })}
        />
      )}
      <ErrorNotice error={enter.error} />
      <button type="submit" className="pick min-h-12" data-on="true" disabled={enter.isPending}>
        <Trans>Come in</Trans>
      </button>
      <p className="text-base text-ink2">
        <Trans>
          The password is set on the Household page. Without one, open the address that Kemble printed when it was
          started: its key lets one browser in.
        </Trans>
      </p>
    </form>
  );
}
