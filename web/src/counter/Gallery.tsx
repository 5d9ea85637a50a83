/** The ten ways, each drawn in cross-section. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { waysQuery } from "../api/queries";
import { TextLink } from "../ui/LinkButton";
import { meant } from "../ui/matchesQuery";
import { newId } from "../ui/newId";
import { Find } from "../ui/SearchField";
import { WayDrawing } from "../ui/WayDrawing";

export function Gallery() {
  const ways = useQuery(waysQuery);
  const client = useQueryClient();
  const navigate = useNavigate();
  const [wanted, setWanted] = useState("");
  const [blank, setBlank] = useState(false);
  const make = useMutation({
    mutationFn: (made: { way: string; uid: string }) =>
      ask(api.POST("/api/sheets", { body: { blank, sheet: null, ...made } })),
    onSuccess: (sheet) => {
      client.invalidateQueries({ queryKey: ["sheets"] });
      navigate(`/sheets/${sheet.id}/mix`);
    },
  });
  const result = ways.data?.filter((way) => meant(wanted, [way.name, way.says, ...way.kin, ...way.said]));
  return (
    <section aria-labelledby="ways">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="ways" className="text-xl">
          <Trans>Begin a sheet</Trans>
        </h2>
        <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 text-ink2">
          <TextLink to="/paste">
            <Trans>paste a list of ingredients</Trans>
          </TextLink>
          <label>
            <Trans>
              <input
                type="checkbox"
                className="mr-1.5 size-4 align-[-2px] accent-bean"
                checked={blank}
                onChange={(event) => setBlank(event.target.checked)}
              />
              blank, with nothing in the bowl
            </Trans>
          </label>
          <Find label={t`Find a way`} value={wanted} onChange={setWanted} />
        </div>
      </div>
      <ul className="mt-3 grid gap-4 sm:grid-cols-3 lg:grid-cols-5">
        {result?.map((way) => (
          <li key={way.id}>
            <button
              type="button"
              className="flex h-full w-full flex-col rounded-md border border-ink2 p-3 text-left hover:border-bean hover:bg-sheet"
              disabled={make.isPending}
              onClick={() => make.mutate({ way: way.id, uid: newId() })}
            >
              <WayDrawing way={way.id} />
              <span className="mt-2 block font-title text-lg leading-tight text-bean">{way.name}</span>
              <span className="mt-1 block text-[14.5px] leading-snug text-ink2">{way.says}</span>
              <span className="mt-auto block pt-2 text-[14.5px] leading-snug text-ink">{way.kin.join(", ")}</span>
            </button>
          </li>
        ))}
      </ul>
      {result?.length === 0 && (
        <p className="mt-3 text-ink2">
          <Trans>No way goes by that name here.</Trans>
        </p>
      )}
    </section>
  );
}
