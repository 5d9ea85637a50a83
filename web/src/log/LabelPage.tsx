/** The label for a box: what is in it, when it was made, until when it keeps, how it becomes soft again. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams } from "react-router";
import { api, ask } from "../api/client";
import { kitchenQuery } from "../api/queries";
import { Frame, Waiting } from "../ui/Frame";
import { TextLink } from "../ui/LinkButton";
import { dayOf, timeOfDay } from "../ui/words";

export default function LabelPage() {
  const id = Number(useParams().stockId);
  const kitchen = useQuery(kitchenQuery);
  const found = useQuery({
    queryKey: ["label", id],
    queryFn: () => ask(api.GET("/api/stock/{stock_id}/label", { params: { path: { stock_id: id } } })),
  });
  useEffect(() => {
    document.title = t`Label · Kemble`;
  }, []);
  if (!found.data || !kitchen.data) return <Waiting error={found.error ?? kitchen.error} />;
  const one = found.data;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>A label</Trans>
        </h1>
      }
    >
      <div className="mt-4 flex flex-wrap items-baseline gap-4 print:hidden">
        <button type="button" className="pick" data-on="true" onClick={() => window.print()}>
          <Trans>Print</Trans>
        </button>
        <TextLink to="/">
          <Trans>Back to the counter</Trans>
        </TextLink>
      </div>
      <article
        data-paper
        aria-label={one.title}
        className="mt-6 w-[90mm] max-w-full border-2 border-ink bg-sheet p-4 print:break-inside-avoid"
      >
        <h2 className="font-title text-xl">{one.title}</h2>
        <p>
          {plural(one.pieces, { one: "# piece", other: "# pieces" })}, {one.where}
        </p>
        <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3">
          <dt className="text-ink2">
            <Trans>Made</Trans>
          </dt>
          <dd className="m-0 font-bold">
            {dayOf(one.made, zone)} {timeOfDay(one.made, zone)}
          </dd>
          {one.until && (
            <>
              <dt className="text-ink2">
                <Trans>Eat by</Trans>
              </dt>
              <dd className="m-0 font-bold">
                {dayOf(one.until, zone)} {timeOfDay(one.until, zone)}
              </dd>
            </>
          )}
          <dt className="text-ink2">
            <Trans>Contains</Trans>
          </dt>
          <dd className="m-0 font-bold">
            {one.allergens.length ? one.allergens.join(", ") : t`none of the usual allergens`}
          </dd>
          {one.freshen && (
            <>
              <dt className="text-ink2">
                <Trans>Soft again</Trans>
              </dt>
              <dd className="m-0">{one.freshen}</dd>
            </>
          )}
        </dl>
        <p className="mt-2 text-sm">{one.caution}</p>
      </article>
      <p className="mt-3 max-w-[40em] text-sm text-ink2 print:hidden">
        <Trans>
          The date is an index worked out from what is in it, not a safety validation. Check the packets for allergens.
        </Trans>
      </p>
    </Frame>
  );
}
