/** The cook's own cup, spoon and scoops, weighed once: every sheet then reads them. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { UnitId } from "../../api/client";
import { limit } from "../../api/limits";
import { larderQuery } from "../../api/queries";
import { WeightField } from "../../ui/AmountField";
import { useFormatters } from "../../ui/formatters";
import { LinkButton } from "../../ui/LinkButton";
import { Row } from "../../ui/Row";
import { unitName } from "../../ui/units";
import type { PanelProps } from "../things";
import { Scoops } from "./NamedWeights";

const VOLUMES: UnitId[] = [
  "cup_own",
  "spoon_own",
  "cup_metric",
  "cup_us",
  "cup_rice_cooker",
  "tbsp_metric",
  "tbsp_us",
  "tbsp_20",
  "tsp_metric",
  "tsp_us",
];

export function CupsPanel({ kitchen, set }: PanelProps) {
  const formatters = useFormatters();
  const { weightWords } = formatters;
  const larder = useQuery(larderQuery);
  const weighed = kitchen.weighed ?? [];
  const name = (id: string) => larder.data?.find((item) => item.id === id)?.name ?? id;
  return (
    <>
      <p className="mt-1 text-ink2">
        <Trans>Fill it with water to the brim you use, and weigh the water: grams are millilitres.</Trans>
      </p>
      <Row label={t`Water in your cup`}>
        <WeightField
          label={t`Water in your cup`}
          hideLabel
          value={kitchen.own_cup_ml ?? null}
          within={limit("Kitchen.own_cup_ml")}
          onClear={() => set({ own_cup_ml: null, weighed: weighed.filter((item) => item.measure !== "cup_own") })}
          onChange={(own_cup_ml) => set({ own_cup_ml })}
        />
      </Row>
      <Row label={t`Water in your spoon`}>
        <WeightField
          label={t`Water in your spoon`}
          hideLabel
          value={kitchen.own_spoon_ml ?? null}
          within={limit("Kitchen.own_spoon_ml")}
          onClear={() => set({ own_spoon_ml: null, weighed: weighed.filter((item) => item.measure !== "spoon_own") })}
          onChange={(own_spoon_ml) => set({ own_spoon_ml })}
        />
      </Row>
      <ul>
        {weighed.map((item, i) => (
          <li
            key={`${item.measure} ${item.ingredient}`}
            className="hairline flex items-baseline justify-between gap-3 py-1"
          >
            <span>
              <Trans>
                {unitName(formatters, item.measure, kitchen)} of {name(item.ingredient).toLowerCase()}
              </Trans>
            </span>
            <span className="whitespace-nowrap">
              <b>{weightWords(item.grams)}</b>
              <LinkButton className="ml-4" onClick={() => set({ weighed: weighed.filter((_, j) => j !== i) })}>
                <Trans>Take away</Trans>
              </LinkButton>
            </span>
          </li>
        ))}
      </ul>
      <WeighOne kitchen={kitchen} set={set} />
      <Scoops kitchen={kitchen} set={set} />
    </>
  );
}

function WeighOne({ kitchen, set }: PanelProps) {
  const formatters = useFormatters();
  const larder = useQuery(larderQuery);
  const [measure, setMeasure] = useState<UnitId>("cup_metric");
  const [ingredient, setIngredient] = useState("sweet-rice-flour");
  const [grams, setGrams] = useState(140);
  const known = VOLUMES.filter(
    (unit) =>
      (unit !== "cup_own" || kitchen.own_cup_ml != null) && (unit !== "spoon_own" || kitchen.own_spoon_ml != null),
  );
  return (
    <form
      className="mt-2 flex flex-wrap items-baseline gap-x-3 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        const others = (kitchen.weighed ?? []).filter((item) => item.ingredient !== ingredient);
        set({ weighed: [...others, { measure, ingredient, grams }] });
      }}
    >
      <Trans>
        <select
          aria-label={t`Weighed measure`}
          className="write"
          value={measure}
          onChange={(event) => setMeasure(event.target.value as UnitId)}
        >
          {known.map((unit) => (
            <option key={unit} value={unit}>
              {unitName(formatters, unit, kitchen)}
            </option>
          ))}
        </select>
        of
        <select
          aria-label={t`Weighed ingredient`}
          className="write max-w-52"
          value={ingredient}
          onChange={(event) => setIngredient(event.target.value)}
        >
          {larder.data?.map((item) => (
            <option key={item.id} value={item.id}>
              {item.name}
            </option>
          ))}
        </select>
        <WeightField
          label={t`weighs`}
          value={grams}
          within={limit("WeighedMeasure.grams")}
          width="4rem"
          onChange={setGrams}
        />
        <button type="submit" className="pick">
          Keep it
        </button>
      </Trans>
    </form>
  );
}
