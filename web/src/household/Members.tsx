/** For the owner: who is in and as what, on which browsers; and one more asked in. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask, type MemberCard, type Role } from "../api/client";
import { kitchenQuery, settle } from "../api/queries";
import { ROLES } from "../api/roles";
import { ErrorNotice } from "../ui/ErrorNotice";
import { LinkButton } from "../ui/LinkButton";
import { Picks } from "../ui/ToggleChoice";
import { dayOf } from "../ui/words";
import { said } from "../words/said";
import { BrowserList } from "./Browsers";
import { Invite } from "./Invite";

type Given = Exclude<Role, "owner">;
const GIVEN: readonly (readonly [Given, string])[] = [
  ["cook", t`cook`],
  ["helper", t`helper`],
  ["taster", t`taster`],
];

const KEY = ["household"];

export function Members() {
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEY, queryFn: () => ask(api.GET("/api/household")) });
  const zone = useQuery(kitchenQuery).data?.kitchen.timezone ?? "UTC";
  const back = useMutation({
    mutationFn: (invitation_id: number) =>
      ask(api.DELETE("/api/household/invitations/{invitation_id}", { params: { path: { invitation_id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: KEY }),
  });
  return (
    <section aria-labelledby="members">
      <h2 id="members" className="text-xl">
        <Trans>Who is in</Trans>
      </h2>
      <ul>
        {query.data?.members.map((eachMember) => (
          <Member key={eachMember.id} member={eachMember} />
        ))}
        {query.data?.invitations.map((invitation) => (
          <li
            key={`asked ${invitation.id}`}
            className="hairline flex flex-wrap items-baseline justify-between gap-x-4 py-2"
          >
            <span>
              <span className="text-lg">{invitation.name}</span>
              <span className="text-ink2">
                <Trans>
                  {" "}
                  asked in as a {said(invitation.role)}, until {dayOf(invitation.until, zone)}
                </Trans>
              </span>
            </span>
            <LinkButton disabled={back.isPending} onClick={() => back.mutate(invitation.id)}>
              <Trans>Take it back</Trans>
            </LinkButton>
          </li>
        ))}
      </ul>
      <ErrorNotice error={query.error ?? back.error} />
      <Invite roles={GIVEN} onMade={() => client.invalidateQueries({ queryKey: KEY })} />
    </section>
  );
}

function Member({ member }: { member: MemberCard }) {
  const client = useQueryClient();
  const [sure, setSure] = useState(false);
  const path = { member_id: member.id };
  const keep = { onSuccess: (now: unknown) => settle(client, KEY, now) };
  const give = useMutation({
    mutationFn: (role: Given) => ask(api.PUT("/api/household/{member_id}", { params: { path }, body: { role } })),
    ...keep,
  });
  const away = useMutation({
    mutationFn: () => ask(api.DELETE("/api/household/{member_id}", { params: { path } })),
    ...keep,
  });
  const out = useMutation({
    mutationFn: (number: number) =>
      ask(api.DELETE("/api/household/browsers/{number}", { params: { path: { number } } })),
    ...keep,
  });
  return (
    <li className="hairline py-2">
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <span className="text-lg">
          {member.name}
          {member.me && (
            <span className="text-ink2">
              <Trans>, you</Trans>
            </span>
          )}
        </span>
        {member.role === "owner" ? (
          <span className="text-ink2">{ROLES.owner.does}</span>
        ) : (
          <Picks
            label={t`What ${member.name} is`}
            value={member.role}
            options={GIVEN}
            onPick={(role) => give.mutate(role)}
          />
        )}
      </div>
      {member.role !== "owner" && (
        <>
          <p className="text-ink2">{ROLES[member.role].does}</p>
          <BrowserList browsers={member.browsers} busy={out.isPending} onAway={(number) => out.mutate(number)} />
          <p className="mt-1 flex gap-5">
            {sure ? (
              <>
                <LinkButton disabled={away.isPending} onClick={() => away.mutate()}>
                  <Trans>Send {member.name} away; what they made stays</Trans>
                </LinkButton>
                <LinkButton onClick={() => setSure(false)}>
                  <Trans>Keep them</Trans>
                </LinkButton>
              </>
            ) : (
              <LinkButton onClick={() => setSure(true)}>
                <Trans>Send away</Trans>
              </LinkButton>
            )}
          </p>
        </>
      )}
      <ErrorNotice error={give.error ?? away.error ?? out.error} />
    </li>
  );
}
