/** What this step looked like the last times, beside its drawing; and one press to take a picture now. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { api, ask, Refused } from "../api/client";
import { whenBack } from "../api/connection";
import { FileButton } from "../ui/FileButton";
import { newId } from "../ui/newId";
import { dayWords } from "../ui/words";
import { sendPicture, waitingPictures, withPicture } from "./storedPictures";

export function Pictures({ run, step }: { run: number; step: string }) {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ["pictures", run],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/pictures", { params: { path: { run_id: run } } })),
    staleTime: 30_000,
  });
  const [says, setSays] = useState("");
  const flush = useCallback(async () => {
    for (const eachTaken of await waitingPictures()) {
      try {
        await sendPicture(eachTaken);
        void client.invalidateQueries({ queryKey: ["pictures"] });
      } catch (error) {
        if (error instanceof Refused && error.status === 422) setSays(error.problems[0]?.says ?? t`It was not taken`);
      }
    }
  }, [client]);
  useEffect(() => {
    void flush();
    return whenBack(() => void flush());
  }, [flush]);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setSays("");
    await withPicture({ uid: newId(), run, step }, file);
    await flush();
    const left = await waitingPictures();
    if (left.length) setSays(t`Kept here, to be sent.`);
  };
  const shown = query.data?.filter((item) => item.step === step).slice(0, 4) ?? [];
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      {shown.map((item) => (
        <figure key={item.id} className="m-0 w-36">
          <img
            src={`/api/pictures/${item.id}.webp`}
            alt={t`${item.title} at this step, ${dayWords(item.at.slice(0, 10))}`}
            className="block h-28 w-36 rounded-md border border-ink object-cover"
            loading="lazy"
          />
          <figcaption className="text-sm text-ink2">
            {item.run === run ? t`this one` : dayWords(item.at.slice(0, 10))}
          </figcaption>
        </figure>
      ))}
      <FileButton
        accept="image/png,image/jpeg,image/webp"
        camera
        className="min-h-16"
        onFile={(file) => void take(file)}
      >
        <Trans>Take a picture</Trans>
      </FileButton>
      {says && (
        <span role="status" className="text-look">
          {says}
        </span>
      )}
    </div>
  );
}
