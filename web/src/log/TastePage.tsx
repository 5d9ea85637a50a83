/** One tongue on a batch, in under half a minute, on a phone: a press a scale, how it is liked, done. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ToggleGroup } from "radix-ui";
import { useEffect, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { api, ask } from "../api/client";
import { batchQuery, sessionQuery, settle, waysQuery } from "../api/queries";
import { cooks, useRole } from "../api/roles";
import { Pictures } from "../runs/Pictures";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { newId } from "../ui/newId";
import { codeOf } from "./codeOf";
import { Scales } from "./Scales";

const LIKINGS = [1, 2, 3, 4, 5, 6, 7, 8, 9];

export default function TastePage() {
  const id = Number(useParams().batchId);
  const [asked] = useSearchParams();
  const blind = asked.get("blind") !== null;
  const navigate = useNavigate();
  const role = useRole();
  const client = useQueryClient();
  const batch = useQuery(batchQuery(id));
  const ways = useQuery(waysQuery);
  const name = useQuery(sessionQuery).data?.name ?? "";
  const [who, setWho] = useState(cooks(role) ? "" : name);
  const [tastes, setTastes] = useState<Record<string, number>>({});
  const [liking, setLiking] = useState<number | null>(null);
  const [note, setNote] = useState("");
  const save = useMutation({
    mutationFn: (uid: string) =>
      ask(
        api.POST("/api/log/{batch_id}/tastings", {
          params: { path: { batch_id: id } },
          body: { uid, who, tastes, liking, note, blind },
        }),
      ),
    onSuccess: async (answer) => {
      await settle(client, batchQuery(id).queryKey, answer);
      for (const key of ["next", "to-eat", "to-taste"]) void client.invalidateQueries({ queryKey: [key] });
      navigate(blind || !cooks(role) ? "/" : `/log/${id}`);
    },
  });
  useEffect(() => {
    document.title = t`Taste · Kemble`;
  }, []);
  const way = ways.data?.find((item) => item.id === batch.data?.way);
  if (!batch.data || !way) return <Waiting error={batch.error ?? ways.error} />;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>How is it?</Trans>
        </h1>
      }
    >
      <form
        className="mt-4 max-w-[36rem] pb-10"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(newId());
        }}
      >
        <p className="text-lg">{blind ? t`Number ${codeOf(id)}` : batch.data.title}</p>
        <Scales way={way} tastes={tastes} onChange={setTastes} />
        <p id="liking" className="mt-5 text-ink2">
          <Trans>How much do you like it, from 1 to 9</Trans>
        </p>
        <ToggleGroup.Root
          type="single"
          aria-labelledby="liking"
          className="mt-2 grid grid-cols-9 gap-1"
          value={liking === null ? "" : String(liking)}
          onValueChange={(value) => setLiking(value ? Number(value) : null)}
        >
          {LIKINGS.map((liking) => (
            <ToggleGroup.Item key={liking} value={String(liking)} className="pick min-h-14 px-0 text-xl">
              {liking}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        <div className="mt-5 grid gap-4 sm:grid-cols-2">
          <label>
            <span className="block text-ink2">
              <Trans>Who</Trans>
            </span>
            <input className="write h-12 w-full" maxLength={40} value={who} onChange={(e) => setWho(e.target.value)} />
          </label>
          <label>
            <span className="block text-ink2">
              <Trans>A word on it</Trans>
            </span>
            <input
              className="write h-12 w-full"
              maxLength={1000}
              value={note}
              onChange={(e) => setNote(e.target.value)}
            />
          </label>
        </div>
        {!blind && cooks(role) && <Pictures run={batch.data.run} step="eaten" />}
        <button
          type="submit"
          className="pick mt-6 min-h-16 w-full text-xl"
          data-on="true"
          disabled={save.isPending || (liking === null && Object.keys(tastes).length === 0)}
        >
          <Trans>That is how it is</Trans>
        </button>
        <ErrorNotice error={save.error} />
      </form>
    </Frame>
  );
}
