/** Browsers that are signed in, each sent away by one press. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type BrowserCard } from "../api/client";
import { ErrorNotice } from "../ui/ErrorNotice";
import { LinkButton } from "../ui/LinkButton";
import { dayOf } from "../ui/words";

/** One's own. */
export function Browsers() {
  const client = useQueryClient();
  const browsers = useQuery({ queryKey: ["browsers"], queryFn: () => ask(api.GET("/api/session/browsers")) });
  const away = useMutation({
    mutationFn: (number: number) => ask(api.DELETE("/api/session/browsers/{number}", { params: { path: { number } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ["browsers"] }),
  });
  if (!browsers.data?.length) return null;
  return (
    <section aria-label={t`Signed in`} className="mt-5">
      <h3 className="text-lg">
        <Trans>Signed in</Trans>
      </h3>
      <BrowserList browsers={browsers.data} busy={away.isPending} onAway={(number) => away.mutate(number)} />
      <ErrorNotice error={away.error} />
    </section>
  );
}

interface Props {
  browsers: BrowserCard[];
  busy: boolean;
  onAway: (number: number) => void;
}

export function BrowserList({ browsers, busy, onAway }: Props) {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <ul>
      {browsers.map((browser) => (
        <li key={browser.id} className="hairline flex min-h-11 items-center justify-between gap-3">
          <span>
            {browser.name}
            <span className="text-ink2">{browser.here ? t`, this one` : t`, used ${dayOf(browser.seen, zone)}`}</span>
          </span>
          {!browser.here && (
            <LinkButton disabled={busy} onClick={() => onAway(browser.id)}>
              <Trans>Sign out</Trans>
            </LinkButton>
          )}
        </li>
      ))}
    </ul>
  );
}
