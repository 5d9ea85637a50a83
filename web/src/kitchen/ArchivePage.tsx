/** The whole kitchen in one file: taken out; and one opened beside what is here, as much of it as is chosen. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import type { components } from "../api/schema";
import { FileButton } from "../ui/FileButton";
import { Frame } from "../ui/Frame";
import { newId } from "../ui/newId";
import { Sorry } from "../ui/Sorry";
import { dayOf } from "../ui/words";

type Look = components["schemas"]["ArchiveLook"];
type GroupId = Look["groups"][number]["id"];
type Taking = { how: "beside" | "in place"; groups: GroupId[]; uid: string };

const formOf = (file: File, more: Record<string, string | string[]> = {}) => {
  const body = new FormData();
  for (const [name, value] of Object.entries(more)) for (const one of [value].flat()) body.append(name, one);
  body.append("file", file, "kitchen.zip");
  return body;
};

export default function ArchivePage() {
  const client = useQueryClient();
  const [chosen, setChosen] = useState<Set<GroupId>>(new Set());
  const [sure, setSure] = useState(false);
  const look = useMutation({
    mutationFn: async (file: File) => {
      const sent = { body: { file: "" }, bodySerializer: () => formOf(file) };
      return { file, told: await ask(api.POST("/api/archive/look", sent)) };
    },
    onSuccess: ({ told }) => {
      setChosen(
        new Set(told.groups.filter((one) => one.id !== "settings" && one.there > one.here).map((one) => one.id)),
      );
      setSure(false);
      take.reset();
    },
  });
  const take = useMutation({
    mutationFn: ({ how, groups, uid }: Taking) => {
      const file = look.data?.file as File;
      const body = { how, groups, uid, file: "" };
      return ask(api.POST("/api/archive", { body, bodySerializer: () => formOf(file, { how, groups, uid }) }));
    },
    onSuccess: () => client.invalidateQueries(),
  });
  useEffect(() => {
    document.title = t`The kitchen in one file · Kemble`;
  }, []);
  const told = look.data?.told;
  const turn = (id: GroupId) =>
    setChosen((was) => new Set(was.has(id) ? [...was].filter((one) => one !== id) : [...was, id]));
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>The kitchen in one file</Trans>
        </h1>
      }
    >
      <div className="mt-6 grid gap-x-16 gap-y-10 pb-10 lg:grid-cols-2">
        <section aria-label={t`Out`}>
          <h2 className="text-xl">
            <Trans>Out</Trans>
          </h2>
          <p className="mt-2">
            <Trans>
              Everything that this kitchen holds, pictures too, as open text in a zip: to keep, to carry to another
              machine, or to give to somebody.
            </Trans>
          </p>
          <p className="mt-3">
            <a href="/api/archive" download className="pick inline-flex items-center px-6" data-on="true">
              <Trans>Take it out</Trans>
            </a>
          </p>
          <p className="mt-3 text-ink2">
            <Trans>Who may come in, and their passwords, are not in it.</Trans>
          </p>
        </section>
        <section aria-label={t`In`}>
          <h2 className="text-xl">
            <Trans>In</Trans>
          </h2>
          <p className="mt-2">
            <Trans>Open a kitchen’s file. You see what is in it before anything is kept.</Trans>
          </p>
          <p className="mt-3">
            <FileButton accept=".zip,application/zip" onFile={(file) => look.mutate(file)}>
              <Trans>Open a file</Trans>
            </FileButton>
          </p>
          {look.isPending && (
            <p role="status" className="mt-3 text-ink2">
              <Trans>Reading it</Trans>
            </p>
          )}
          <Sorry error={look.error} />
          {told && !take.data && (
            <>
              <h3 className="mt-6 text-xl">{told.name}</h3>
              <p className="text-ink2">
                <Trans>taken out on {dayOf(told.made, Intl.DateTimeFormat().resolvedOptions().timeZone)}</Trans>
              </p>
              <ul className="mt-3">
                {told.groups.map((one) => (
                  <li key={one.id} className="hairline">
                    <label className="flex min-h-12 items-center gap-3 py-1">
                      <input
                        type="checkbox"
                        className="size-5 accent-bean"
                        checked={chosen.has(one.id)}
                        disabled={one.there === one.here}
                        onChange={() => turn(one.id)}
                      />
                      <span className="grow">{one.label}</span>
                      <span className="text-right text-ink2">{besideWords(one)}</span>
                    </label>
                  </li>
                ))}
              </ul>
              <p className="mt-4">
                <button
                  type="button"
                  className="pick px-6"
                  data-on={chosen.size > 0}
                  disabled={chosen.size === 0 || take.isPending}
                  onClick={() => take.mutate({ how: "beside", groups: [...chosen], uid: newId() })}
                >
                  <Trans>Put that beside what is here</Trans>
                </button>
              </p>
              <p className="mt-6 text-ink2">
                <Trans>
                  Or it takes the place of everything that is here. What is here now goes into the backups first.
                </Trans>
              </p>
              <p className="mt-2">
                {sure ? (
                  <button
                    type="button"
                    className="pick px-6 text-bean"
                    disabled={take.isPending}
                    onClick={() => take.mutate({ how: "in place", groups: [], uid: newId() })}
                  >
                    <Trans>Yes, in place of all that is here</Trans>
                  </button>
                ) : (
                  <button type="button" className="pick px-6" onClick={() => setSure(true)}>
                    <Trans>In its place</Trans>
                  </button>
                )}
              </p>
              {take.isPending && (
                <p role="status" className="mt-3 text-ink2">
                  <Trans>Putting it in</Trans>
                </p>
              )}
            </>
          )}
          <Sorry error={take.error} />
          {take.data && (
            <p role="status" className="mt-4 text-lg text-green">
              <Trans>
                {plural(take.data.added, { one: "# thing", other: "# things" })} came in.{" "}
                <Link to="/">To the counter</Link>
              </Trans>
            </p>
          )}
        </section>
      </div>
    </Frame>
  );
}

/** How many there are in the file, and how many of them are here already. */
export function besideWords({ id, there, here }: Look["groups"][number]): string {
  if (id === "settings") return here ? t`as it is here` : t`otherwise than here`;
  if (there === 0) return "none";
  if (here === 0) return `${there}`;
  return here === there ? t`${there}, all here already` : t`${there}, ${here} of them here already`;
}
