/** Everything that was thrown away in the last thirty days, and the way back for it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { TrashCard } from "../api/client";
import { droppedQuery, kitchenQuery } from "../api/queries";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { BringBack } from "../ui/RestoreTrashed";
import { dayOf } from "../ui/words";

const DAY_MS = 24 * 3_600_000;

export default function DroppedPage() {
  const { timeOfDay } = useFormatters();
  const dropped = useQuery(droppedQuery);
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = t`Thrown away · Kemble`;
  }, []);
  if (!dropped.data || !kitchen.data) return <Waiting error={dropped.error ?? kitchen.error} />;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame
      title={
        <h1 className="text-2xl sm:text-[28px]">
          <Trans>Thrown away</Trans>
        </h1>
      }
    >
      <p className="mt-4 max-w-prose text-ink2">
        <Trans>
          Each lies here for thirty days. A sheet comes back with its plans, a tin or an ingredient to the kitchen.
        </Trans>
      </p>
      {dropped.data.length === 0 && (
        <p className="mt-6 text-lg">
          <Trans>Nothing lies here.</Trans>
        </p>
      )}
      <ul className="mt-4 max-w-3xl">
        {dropped.data.map((item) => (
          <li
            key={`${item.kind} ${item.id}`}
            className="hairline grid grid-cols-[6rem_1fr_auto] items-baseline gap-4 py-2"
          >
            <span className="text-ink2">{item.kind}</span>
            <span>
              <span className="text-lg">{item.title}</span>
              <span className="block text-sm text-ink2">
                <Trans>
                  {dayOf(item.dropped, zone)}, {timeOfDay(item.dropped, zone)}; gone for good in {daysLeft(item)}
                </Trans>
              </span>
            </span>
            <BringBack kind={item.kind} id={item.id}>
              <Trans>
                Bring it back
                <span className="sr-only">: {item.title}</span>
              </Trans>
            </BringBack>
          </li>
        ))}
      </ul>
    </Frame>
  );
}

function daysLeft(item: TrashCard) {
  const days = Math.max(0, Math.ceil((Date.parse(item.until) - Date.now()) / DAY_MS));
  return days === 1 ? t`a day` : t`${days} days`;
}
