/** Other devices: the password that lets them in, those that are in, and a code beside the password. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { sessionQuery, settle } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { LinkButton } from "../ui/LinkButton";
import { Browsers } from "./Browsers";
import { SecondFactor } from "./SecondFactor";

/** The password that every other browser is asked for; this one came in with it, or with a key. */
export function Password() {
  const session = useQuery(sessionQuery);
  const client = useQueryClient();
  const [typed, setTyped] = useState({ password: "", old: "" });
  const save = useMutation({
    mutationFn: () => ask(api.PUT("/api/session/password", { body: typed })),
    onSuccess: async (answer) => {
      await settle(client, ["session"], answer);
      void client.invalidateQueries({ queryKey: ["browsers"] });
      setTyped({ password: "", old: "" });
    },
  });
  const leave = useMutation({
    mutationFn: () => ask(api.DELETE("/api/session")),
    onSuccess: () => location.assign("/"),
  });
  const error = save.error ?? leave.error;
  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <h2 className="text-xl">
          <Trans>You, on other devices</Trans>
        </h2>
        <p className="mt-1 text-ink2">
          <Trans>
            Any other browser comes in as “{session.data?.name}” with a password
            {session.data?.has_password ? t`; one is set` : t`; none is set yet, so only a key lets one in`}.
          </Trans>
        </p>
        <input type="text" hidden readOnly autoComplete="username" value={session.data?.name ?? ""} />
        {session.data?.has_password && (
          <input
            aria-label={t`The password that is set`}
            placeholder={t`the one that is set`}
            type="password"
            autoComplete="current-password"
            className="write mt-2 block w-56"
            maxLength={200}
            required
            value={typed.old}
            onChange={(event) => setTyped({ ...typed, old: event.target.value })}
          />
        )}
        <input
          aria-label={t`New password`}
          placeholder={session.data?.has_password ? t`the new one` : undefined}
          type="password"
          autoComplete="new-password"
          className="write mt-2 w-56"
          minLength={10}
          maxLength={200}
          required
          value={typed.password}
          onChange={(event) => setTyped({ ...typed, password: event.target.value })}
        />
        <button type="submit" className="pick ml-3" disabled={save.isPending}>
          <Trans>Set password</Trans>
        </button>
        <ErrorNotice error={error} />
        <p className="mt-3">
          <LinkButton disabled={leave.isPending} onClick={() => leave.mutate()}>
            <Trans>Sign this browser out</Trans>
          </LinkButton>
        </p>
      </form>
      <Browsers />
      {session.data?.has_password && <SecondFactor on={session.data.second_factor} />}
    </>
  );
}
