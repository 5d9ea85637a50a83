/** Whoever opens an invitation: what it is to, and a name and a password of their own. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { signedIn } from "../api/connection";
import { sessionQuery } from "../api/queries";
import { ROLES } from "../api/roles";
import { ErrorNotice } from "../ui/ErrorNotice";
import { LinkButton } from "../ui/LinkButton";
import { Field } from "./Field";

interface Props {
  invitation: string;
  /** It was taken, or left. */
  onDone: () => void;
}

export default function Invited({ invitation, onDone }: Props) {
  const client = useQueryClient();
  const session = useQuery(sessionQuery);
  const look = useQuery({
    queryKey: ["invited", invitation],
    staleTime: Number.POSITIVE_INFINITY,
    enabled: session.isSuccess, // which gives this page its token
    queryFn: () => ask(api.POST("/api/session/invited/look", { body: { key: invitation } })),
  });
  const [typed, setTyped] = useState({ name: "", password: "" });
  const take = useMutation({
    mutationFn: () => ask(api.POST("/api/session/invited", { body: { key: invitation, ...typed } })),
    onSuccess: () => {
      signedIn();
      // All that this browser knew was told to somebody else; but the invitation is good no longer.
      void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "invited" });
      onDone();
    },
  });
  return (
    <main className="mx-auto max-w-md px-4 py-16">
      <h1 className="font-title text-4xl text-bean">Kemble</h1>
      <ErrorNotice error={look.error} className="mt-6" />
      {look.data && (
        <>
          <p className="mt-6 text-xl">
            <Trans>
              {look.data.name}, you are asked into <b>{look.data.kitchen}</b> as a {look.data.role}.
            </Trans>
          </p>
          <p className="mt-1 text-ink2">
            A {look.data.role} {ROLES[look.data.role].does}.
          </p>
          {session.data?.signed_in && (
            <p className="mt-3 border-l-4 border-amber pl-4">
              <Trans>
                This browser is signed in as {session.data.name}. It is signed out of that when you come in here.
              </Trans>
            </p>
          )}
          <form
            className="mt-6 grid gap-4 text-lg"
            onSubmit={(event) => {
              event.preventDefault();
              take.mutate();
            }}
          >
            <Field
              label={t`A name for yourself`}
              autoComplete="username"
              maxLength={30}
              value={typed.name}
              onChange={(name) => setTyped({ ...typed, name })}
            />
            <Field
              label={t`A password, of at least 10 letters or figures`}
              type="password"
              autoComplete="new-password"
              minLength={10}
              maxLength={200}
              value={typed.password}
              onChange={(password) => setTyped({ ...typed, password })}
            />
            <ErrorNotice error={take.error} />
            <button type="submit" className="pick min-h-12" data-on="true" disabled={take.isPending}>
              <Trans>Come in</Trans>
            </button>
          </form>
        </>
      )}
      {(look.error || session.data?.signed_in) && (
        <p className="mt-6">
          <LinkButton onClick={onDone}>{look.error ? t`To the door` : t`Leave it`}</LinkButton>
        </p>
      )}
    </main>
  );
}
