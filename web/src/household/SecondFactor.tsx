/** A code beside the password: begun, read by a phone, on once a code was right; and off again with a last one. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { settle } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { LinkButton } from "../ui/LinkButton";

export function SecondFactor({ on }: { on: boolean }) {
  const client = useQueryClient();
  const [code, setCode] = useState("");
  const [leaving, setLeaving] = useState(false);
  const begin = useMutation({ mutationFn: () => ask(api.POST("/api/session/second-factor")) });
  const turn = useMutation({
    mutationFn: () =>
      on
        ? ask(api.POST("/api/session/second-factor/off", { body: { code } }))
        : ask(api.PUT("/api/session/second-factor", { body: { code } })),
    onSuccess: async (answer) => {
      await settle(client, ["session"], answer);
      setCode("");
      setLeaving(false);
      begin.reset();
    },
  });
  const asks = on ? leaving : begin.data !== undefined;
  return (
    <section aria-label={t`A code beside it`} className="mt-5">
      <h3 className="text-lg">
        <Trans>A code beside it</Trans>
      </h3>
      <p className="mt-1 text-ink2">
        {on
          ? t`The password is asked for with six figures that your phone shows.`
          : t`If wanted, the password is asked for with six figures that your phone shows, new every half minute.`}
      </p>
      {!asks && (
        <p className="mt-2">
          <LinkButton onClick={() => (on ? setLeaving(true) : begin.mutate())}>
            {on ? t`Ask for no code any more` : t`Ask for a code too`}
          </LinkButton>
        </p>
      )}
      {begin.data && !on && (
        <div className="mt-3">
          <p>
            <Trans>Let an app for codes read this, or type the secret there.</Trans>
          </p>
          <img
            alt={t`The secret, for a camera`}
            className="mt-2 size-44"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(begin.data.svg)}`}
          />
          <p className="mt-2 break-all">
            <code>{begin.data.secret}</code>
          </p>
        </div>
      )}
      {asks && (
        <form
          className="mt-3 flex flex-wrap items-baseline gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            turn.mutate();
          }}
        >
          <input
            aria-label={t`The six figures that your phone shows`}
            className="write w-32"
            inputMode="numeric"
            autoComplete="one-time-code"
            minLength={6}
            maxLength={7}
            required
            value={code}
            onChange={(event) => setCode(event.target.value)}
          />
          <button type="submit" className="pick" disabled={turn.isPending}>
            {on ? t`Turn it off` : t`Turn it on`}
          </button>
        </form>
      )}
      <ErrorNotice error={begin.error ?? turn.error} />
    </section>
  );
}
