/** One more asked in: for whom, as what; then the address that is good once, for a camera and for a message. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask, type NewInvitation, type Role } from "../api/client";
import { ROLES } from "../api/roles";
import { ErrorNotice } from "../ui/ErrorNotice";
import { LinkButton } from "../ui/LinkButton";
import { Picks } from "../ui/ToggleChoice";

type Given = Exclude<Role, "owner">;

export function Invite({ roles, onMade }: { roles: readonly (readonly [Given, string])[]; onMade: () => void }) {
  const [name, setName] = useState("");
  const [role, setRole] = useState<Given>("helper");
  const invite = useMutation({
    mutationFn: () => ask(api.POST("/api/household/invitations", { body: { name: name.trim(), role } })),
    onSuccess: () => {
      setName("");
      onMade();
    },
  });
  return (
    <>
      <form
        className="mt-6"
        onSubmit={(event) => {
          event.preventDefault();
          invite.mutate();
        }}
      >
        <h3 className="text-lg">
          <Trans>Ask somebody in</Trans>
        </h3>
        <label className="mt-1 block">
          <span className="block text-ink2">
            <Trans>For whom</Trans>
          </span>
          <input
            className="write w-64"
            maxLength={40}
            required
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <Picks label={t`As what`} className="mt-3" value={role} options={roles} onPick={setRole} />
        <p className="mt-1 text-ink2">{ROLES[role].does}</p>
        <button type="submit" className="pick mt-3" disabled={invite.isPending || !name.trim()}>
          <Trans>Write the invitation</Trans>
        </button>
        <ErrorNotice error={invite.error} />
      </form>
      {invite.data && <Written made={invite.data} />}
    </>
  );
}

function Written({ made }: { made: NewInvitation }) {
  const [copied, setCopied] = useState(false);
  return (
    <section aria-label={t`The invitation`} className="mt-4 border-l-4 border-green pl-4">
      <p>
        <Trans>
          For {made.invitation.name}, once, for a week. It is shown this once.
          {made.here_only && (
            <b className="text-look">
              <Trans>
                {" "}
                This page was opened by a name that only this machine knows. Open it by the machine’s name in your house
                (started with KEMBLE_HOSTS and HOST), and write the invitation there.
              </Trans>
            </b>
          )}
        </Trans>
      </p>
      <img
        alt={t`The invitation, for a camera`}
        className="mt-2 size-44"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(made.svg)}`}
      />
      <p className="mt-2 break-all">
        <code>{made.address}</code>
      </p>
      <LinkButton onClick={() => navigator.clipboard?.writeText(made.address).then(() => setCopied(true))}>
        {copied ? t`Copied` : t`Copy it`}
      </LinkButton>
    </section>
  );
}
