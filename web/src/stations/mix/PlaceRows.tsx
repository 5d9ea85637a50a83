/** Where the rest of an output goes, and at which step of the way it does. */

import { t } from "@lingui/core/macro";
import type { OutputPlace, PartId, Sheet, WayCard } from "../../api/client";
import { PickRow } from "../../ui/Row";
import { joinSteps, placeId, placeOf, placesFor } from "./places";

interface Props {
  label: string;
  sheet: Sheet;
  way: WayCard;
  part: PartId;
  place: OutputPlace;
  onChange: (place: OutputPlace) => void;
}

export function PlaceRows({ label, sheet, way, part, place, onChange }: Props) {
  const steps = joinSteps(way, sheet);
  const joins = place.to === "base" || place.to === "whole";
  return (
    <>
      <PickRow
        label={label}
        value={placeId(place)}
        options={placesFor(sheet, way, part)}
        onChange={(id) => onChange(placeOf(id, id.split(" ")[0] === place.to ? place.joins : ""))}
      />
      {joins && (
        <PickRow
          label={place.to === "base" ? t`Joins at` : t`Before the step`}
          value={place.joins}
          options={[["", place.to === "base" ? t`from the start` : t`as is usual`] as const, ...steps]}
          onChange={(step) => onChange({ ...place, joins: step })}
        />
      )}
    </>
  );
}
