/** One flow, opened: where it goes, at which step, and some of it taken into another part. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { WayCard } from "../../api/client";
import { withNewTake, withPlace } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { ActionMenu } from "../../ui/ActionMenu";
import { useFormatters } from "../../ui/formatters";
import { PickRow, Row } from "../../ui/Row";
import type { Flow } from "./flow";
import { PlaceRows } from "./PlaceRows";
import { outputKey, placesFor, takeable } from "./places";

interface Props {
  editing: Editing;
  way: WayCard;
  flow: Flow;
  onCarry: (id: string) => void;
}

export function FlowPanel({ editing, way, flow, onCarry }: Props) {
  const { weightWords } = useFormatters();
  const { sheet, edit } = editing;
  const { part } = flow;
  const takers = sheet.parts.filter((taker) => takeable(sheet, taker.id).some((item) => item.id === part));
  const key = outputKey(flow.nth, flow.output.id);
  return (
    <fieldset className="mt-2 border-l-4 border-bean pl-4">
      <legend className="font-title text-lg">
        <Trans>
          {weightWords(flow.goes.grams, 0)} of {flow.output.name}
        </Trans>
      </legend>
      {flow.goes.take >= 0 ? (
        <PickRow
          label={t`Taken into`}
          value={flow.goes.to}
          options={placesFor(sheet, way, part)
            .filter(([id]) => sheet.parts.some((item) => item.id === id) || id === "kept")
            .map(([id, words]) => [id, id === "kept" ? t`nothing: it stays where the rest goes` : words] as const)}
          onChange={onCarry}
        />
      ) : (
        <PlaceRows
          label={t`Goes`}
          sheet={sheet}
          way={way}
          part={part}
          place={sheet.parts.find((item) => item.id === part)?.rest[key] ?? flow.output.place}
          onChange={(place) => edit(withPlace(sheet, part, key, place))}
        />
      )}
      {takers.length > 0 && (
        <Row label={t`Take some of it`}>
          <ActionMenu
            label={t`Take some of it: where to`}
            choices={takers.map((item) => ({ id: item.id, words: t`into the ${item.name || item.id}` }))}
            onPick={(taker) =>
              edit(
                withNewTake(sheet, taker, key ? `${part}.${key}` : part, {
                  share: 0.25,
                  amount: null,
                }),
              )
            }
          >
            <Trans>where to</Trans>
          </ActionMenu>
        </Row>
      )}
    </fieldset>
  );
}
