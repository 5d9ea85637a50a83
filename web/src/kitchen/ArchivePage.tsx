/** The whole kitchen in one file: taken out; and one read beside what is here, as much of it as is chosen put in. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, ask, Refused } from "../api/client";
import type { components } from "../api/schema";
import { ErrorNotice } from "../ui/ErrorNotice";
import { FileButton } from "../ui/FileButton";
import { Frame } from "../ui/Frame";
import { dayOf } from "../ui/words";

type Staged = components["schemas"]["StagedArchive"];
type GroupId = Staged["groups"][number]["id"];
type Taking = { how: "beside" | "in place"; groups: GroupId[] };

const LOOK_MS = 400;
const isGoing = (staged: Staged | undefined) => staged?.state === "reading" || staged?.state === "taking";

const formOf = (file: File) => {
  const body = new FormData();
  body.append("file", file, "kitchen.zip");
  return body;
};

/** What of a file is chosen at first: all of it that is not here, but for the kitchen itself. */
const newGroups = (staged: Staged) =>
  staged.groups.filter((group) => group.id !== "settings" && group.there > group.here).map((group) => group.id);

/** A file on its way in: sent, read by the server, put in. */
function useStaged() {
  const client = useQueryClient();
  const [id, setId] = useState<string | null>(null);
  const path = { archive_id: id ?? "" };
  const look = useQuery({
    queryKey: ["archive", id],
    queryFn: () => ask(api.GET("/api/archive/staged/{archive_id}", { params: { path } })),
    enabled: id !== null,
    refetchInterval: ({ state }) => (isGoing(state.data) ? LOOK_MS : false),
    staleTime: 0,
  });
  const send = useMutation({
    mutationFn: (file: File) =>
      ask(api.POST("/api/archive/staged", { body: { file: "" }, bodySerializer: () => formOf(file) })),
    onSuccess: (staged) => {
      client.setQueryData(["archive", staged.id], staged);
      setId(staged.id);
      take.reset();
    },
  });
  const take = useMutation({
    mutationFn: (body: Taking) => ask(api.POST("/api/archive/staged/{archive_id}/take", { params: { path }, body })),
    onSuccess: (staged) => client.setQueryData(["archive", staged.id], staged),
  });
  const callOff = useMutation({
    mutationFn: () => ask(api.DELETE("/api/archive/staged/{archive_id}", { params: { path } })),
    onSettled: () => setId(null),
  });
  const taken = look.data?.state === "taken";
  useEffect(() => {
    if (taken) void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "archive" });
  }, [taken, client]);
  const problems = look.data?.problems ?? [];
  const error = send.error ?? take.error ?? look.error ?? (problems.length ? new Refused(422, problems) : null);
  return { staged: id === null ? undefined : look.data, send, take, callOff, error };
}

export default function ArchivePage() {
  const { staged, send, take, callOff, error } = useStaged();
  const [chosen, setChosen] = useState<Set<GroupId>>(new Set());
  const [sure, setSure] = useState(false);
  const isReady = staged?.state === "ready";
  const id = staged?.id;
  // biome-ignore lint/correctness/useExhaustiveDependencies: chosen anew for each file, once it is read
  useEffect(() => {
    if (!isReady || !staged) return;
    setChosen(new Set(newGroups(staged)));
    setSure(false);
  }, [isReady, id]);
  useEffect(() => {
    document.title = t`The kitchen in one file · Kemble`;
  }, []);
  const turn = (id: GroupId) =>
    setChosen((was) => new Set(was.has(id) ? [...was].filter((item) => item !== id) : [...was, id]));
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
            <FileButton accept=".zip,application/zip" onFile={(file) => send.mutate(file)}>
              <Trans>Open a file</Trans>
            </FileButton>
          </p>
          {send.isPending && (
            <p role="status" className="mt-3 text-ink2">
              <Trans>Sending it</Trans>
            </p>
          )}
          {staged?.state === "reading" && <Reading staged={staged} onStop={() => callOff.mutate()} />}
          <ErrorNotice error={error} />
          {isReady && (
            <>
              <h3 className="mt-6 text-xl">{staged.name}</h3>
              <p className="text-ink2">
                <Trans>taken out on {dayOf(staged.made, Intl.DateTimeFormat().resolvedOptions().timeZone)}</Trans>
              </p>
              <ul className="mt-3">
                {staged.groups.map((group) => (
                  <li key={group.id} className="hairline">
                    <label className="flex min-h-12 items-center gap-3 py-1">
                      <input
                        type="checkbox"
                        className="size-5 accent-bean"
                        checked={chosen.has(group.id)}
                        disabled={group.there === group.here}
                        onChange={() => turn(group.id)}
                      />
                      <span className="grow">{group.label}</span>
                      <span className="text-right text-ink2">{besideWords(group)}</span>
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
                  onClick={() => take.mutate({ how: "beside", groups: [...chosen] })}
                >
                  <Trans>Add that to this kitchen</Trans>
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
                    onClick={() => take.mutate({ how: "in place", groups: [] })}
                  >
                    <Trans>Yes, in place of all that is here</Trans>
                  </button>
                ) : (
                  <button type="button" className="pick px-6" onClick={() => setSure(true)}>
                    <Trans>In its place</Trans>
                  </button>
                )}
              </p>
            </>
          )}
          {staged?.state === "taking" && (
            <p role="status" className="mt-3 text-ink2">
              <Trans>Putting it in. You can go on with your work meanwhile.</Trans>
            </p>
          )}
          {staged?.state === "taken" && (
            <p role="status" className="mt-4 text-lg text-green">
              <Trans>
                {plural(staged.added, { one: "# thing", other: "# things" })} came in.{" "}
                <Link to="/">To the counter</Link>
              </Trans>
            </p>
          )}
          {staged?.state === "taken" && staged.ended > 0 && (
            <p className="mt-2">
              {plural(staged.ended, {
                one: "# batch was in progress in the other kitchen. It came in as ended there.",
                other: "# batches were in progress in the other kitchen. They came in as ended there.",
              })}
            </p>
          )}
        </section>
      </div>
    </Frame>
  );
}

/** How much of a file is read; it can be called off. */
function Reading({ staged, onStop }: { staged: Staged; onStop: () => void }) {
  const rows = staged.rows.toLocaleString();
  return (
    <div className="mt-3 flex flex-wrap items-center gap-4">
      <progress max={100} value={staged.read_pct} aria-label={t`How much of the file is read`} className="fills w-56" />
      <span className="text-ink2">
        <Trans>Reading it: {rows} rows so far</Trans>
      </span>
      <button type="button" className="pick px-6" onClick={onStop}>
        <Trans>Stop</Trans>
      </button>
    </div>
  );
}

/** How many there are in the file, and how many of them are here already. */
export function besideWords({ id, there, here }: Staged["groups"][number]): string {
  if (id === "settings") return here ? t`as it is here` : t`otherwise than here`;
  if (there === 0) return t`none`;
  if (here === 0) return `${there}`;
  return here === there ? t`${there}, all here already` : t`${there}, ${here} of them here already`;
}
