/** What of the kitchen's the heat stands in: which steamer or pot, and which dish in it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import type { Sheet, Tin, WorkResult } from "../../api/client";
import { kitchenQuery } from "../../api/queries";
import { useFormatters } from "../../ui/formatters";
import { Row } from "../../ui/Row";
import { tinSize } from "../../ui/tins";

interface StandsInProps {
  worked: WorkResult;
  heat: Sheet["heat"];
  onPick: (heat: Sheet["heat"]) => void;
}

/** The steamer or the pot, where there are several: one that fits, or the one that is named. */
export function StandsIn({ worked, heat, onPick }: StandsInProps) {
  const kitchen = useQuery(kitchenQuery).data?.kitchen;
  const stands = worked.stands_in;
  if (!stands || !kitchen) return null;
  const all = (stands.kind === "steamer" ? kitchen.steamers : kitchen.pots).map((steamer) => steamer.name);
  const gone = heat.vessel && !all.includes(heat.vessel);
  if (all.length < 2 && !gone) return null;
  return (
    <Row label={t`Stands in`}>
      <select
        aria-label={t`Stands in`}
        className="write"
        value={heat.vessel}
        onChange={(event) => onPick({ ...heat, vessel: event.target.value })}
      >
        <option value="">
          <Trans>one that fits{heat.vessel ? "" : `: ${stands.name}`}</Trans>
        </option>
        {gone && (
          <option value={heat.vessel}>
            <Trans>{heat.vessel}, not in this kitchen</Trans>
          </option>
        )}
        {all.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </Row>
  );
}

/** The dish that a dough is steamed in: one of the kitchen's tins. */
export function Dish({ vessel, onPick }: { vessel: Sheet["vessel"]; onPick: (tin: Tin) => void }) {
  const formatters = useFormatters();
  const kitchen = useQuery(kitchenQuery);
  const tins = kitchen.data?.kitchen.tins ?? [];
  const known = tins.findIndex(
    (tin) => tinSize(formatters, tin) === tinSize(formatters, vessel.tin) && tin.material === vessel.tin.material,
  );
  return (
    <Row label={t`Dish`}>
      <select
        aria-label={t`Dish`}
        className="write"
        value={known}
        onChange={(event) => {
          const tin = tins[Number(event.target.value)];
          if (tin) onPick(tin);
        }}
      >
        {known < 0 && <option value={-1}>{tinSize(formatters, vessel.tin)}</option>}
        {tins.map((tin, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two tins may be alike
          <option key={i} value={i}>
            {tin.name || t`a tin`}, {tinSize(formatters, tin)}
          </option>
        ))}
      </select>
    </Row>
  );
}
