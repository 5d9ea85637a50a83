/** The label for a box: what is in it, when it was made, until when it keeps, how it becomes soft again. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams } from "react-router";
import { api, ask } from "../api/client";
import { kitchenQuery } from "../api/queries";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { TextLink } from "../ui/LinkButton";
import { dayOf } from "../ui/words";

export default function LabelPage() {
  const { timeOfDay } = useFormatters();
  const id = Number(useParams().stockId);
  const kitchen = useQuery(kitchenQuery);
  const query = useQuery({
    queryKey: ["label", id],
    queryFn: () => ask(api.GET("/api/stock/{stock_id}/label", { params: { path: { stock_id: id } } })),
  });
  useEffect(() => {
    document.title = t`Label · Kemble`;
  }, []);
  if (!query.data || !kitchen.data) return <Waiting error={query.error ?? kitchen.error} />;
  const item = query.data;
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
        aria-label={item.title}
        className="mt-6 w-[90mm] max-w-full border-2 border-ink bg-sheet p-4 print:break-inside-avoid"
      >
        <h2 className="font-title text-xl">{item.title}</h2>
        <p>
          {plural(item.pieces, { one: "# piece", other: "# pieces" })}, {item.where}
        </p>
        <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3">
          <dt className="text-ink2">
            <Trans>Made</Trans>
          </dt>
          <dd className="m-0 font-bold">
            {dayOf(item.made, zone)} {timeOfDay(item.made, zone)}
          </dd>
          {item.until && (
            <>
              <dt className="text-ink2">
                <Trans>Eat by</Trans>
              </dt>
              <dd className="m-0 font-bold">
                {dayOf(item.until, zone)} {timeOfDay(item.until, zone)}
              </dd>
            </>
          )}
          <dt className="text-ink2">
            <Trans>Contains</Trans>
          </dt>
          <dd className="m-0 font-bold">
            {item.allergens.length ? item.allergens.join(", ") : t`none of the usual allergens`}
          </dd>
          {item.freshen && (
            <>
              <dt className="text-ink2">
                <Trans>Soft again</Trans>
              </dt>
              <dd className="m-0">{item.freshen}</dd>
            </>
          )}
        </dl>
        <p className="mt-2 text-sm">{item.caution}</p>
      </article>
      <p className="mt-3 max-w-[40em] text-sm text-ink2 print:hidden">
        <Trans>
          The date is an index worked out from what is in it, not a safety validation. Check the packets for allergens.
        </Trans>
      </p>
    </Frame>
  );
}
