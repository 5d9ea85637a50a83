/** The browsers that are signed in, each sent away by one press. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { LinkButton } from "../ui/LinkButton";
import { Sorry } from "../ui/Sorry";
import { dayOf } from "../ui/words";

export function Browsers() {
  const client = useQueryClient();
  const browsers = useQuery({ queryKey: ["browsers"], queryFn: () => ask(api.GET("/api/session/browsers")) });
  const away = useMutation({
    mutationFn: (number: number) => ask(api.DELETE("/api/session/browsers/{number}", { params: { path: { number } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ["browsers"] }),
  });
  if (!browsers.data?.length) return null;
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <section aria-label="Signed in" className="mt-5">
      <h3 className="text-lg">Signed in</h3>
      <ul>
        {browsers.data.map((one) => (
          <li key={one.id} className="hairline flex min-h-11 items-center justify-between gap-3">
            <span>
              {one.name}
              <span className="text-ink2">{one.here ? ", this one" : `, used ${dayOf(one.seen, zone)}`}</span>
            </span>
            {!one.here && (
              <LinkButton disabled={away.isPending} onClick={() => away.mutate(one.id)}>
                Send away
              </LinkButton>
            )}
          </li>
        ))}
      </ul>
      <Sorry error={away.error} />
    </section>
  );
}
