/** The head of a part: its name, what it yields, the weight at which it is done, and everything else about it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import type { FactKey, FamilyCard, KitchenSettings, Part, PartId, PartResult, WayCard } from "../../api/client";
import { GROUPS } from "../../api/generated";
import { limit } from "../../api/limits";
import { familiesQuery, larderQuery } from "../../api/queries";
import { withNewLine, withNewTake, withoutPart, withPart, withPlace } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { ActionMenu } from "../../ui/ActionMenu";
import { WeightField } from "../../ui/AmountField";
import { FactFigure } from "../../ui/FactFigure";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { Slip } from "../../ui/PopoverPanel";
import { PickRow, Row } from "../../ui/Row";
import { capital } from "../../ui/words";
import { PlaceRows } from "./PlaceRows";
import { outputKey, takeable } from "./places";
import { Shared } from "./SharedPart";
import { SomeField } from "./SomeField";

interface Props {
  editing: Editing;
  part: Part;
  at: number;
  worked?: PartResult;
  kitchen: KitchenSettings;
  way: WayCard;
}

export function PartHead({ editing, part, at, worked, kitchen, way }: Props) {
  const { weightWords } = useFormatters();
  const larder = useQuery(larderQuery);
  const { facts } = editing.worked;
  const name = part.name || part.id;
  const made = takeable(editing.sheet, part.id).flatMap((source) =>
    outputsOf(editing.worked.parts, source).map((output, i) => ({
      of: i === 0 ? source.id : `${source.id}.${output.id}`,
      name: output.name,
    })),
  );
  const add = (chosen: string) =>
    editing.edit(
      chosen.startsWith(MADE)
        ? withNewTake(editing.sheet, part.id, chosen.slice(MADE.length), { share: 0.5, amount: null })
        : withNewLine(editing.sheet, at, chosen),
    );
  return (
    <span className="flex flex-wrap items-baseline justify-between gap-x-4">
      {worked ? <PartSlip editing={editing} part={part} worked={worked} kitchen={kitchen} way={way} /> : <b>{name}</b>}
      {worked && part.role !== "wrapper" && (part.role !== "base" || worked.reduced) && (
        <FactFigure
          facts={facts}
          name={weightFact(part.id, worked.scale_g != null)}
          className={worked.reduced ? "font-bold text-bean" : "text-ink2"}
        >
          {part.made_on
            ? t`made on ${part.made_on}`
            : worked.reduced
              ? worked.scale_g
                ? t`done at ${weightWords(worked.scale_g, 0)} with the pan`
                : t`done at ${weightWords(worked.made_g, 0)}`
              : weightWords(worked.made_g, 0)}
        </FactFigure>
      )}
      <ActionMenu
        label={t`Add to the ${name}`}
        choices={[
          ...made.map((item) => ({ id: `${MADE}${item.of}`, words: item.name, under: t`Made here` })),
          ...(larder.data ?? []).map((item) => ({
            id: item.id,
            words: item.name,
            under: GROUPS.find(([group]) => group === item.group)?.[1] ?? "",
          })),
        ]}
        onPick={add}
      >
        <Trans>add</Trans>
      </ActionMenu>
    </span>
  );
}

/** What stands before a part in the list of what can be added; no ingredient's id begins so. */
const MADE = t`made here `;

const outputsOf = (worked: PartResult[], part: Part) =>
  worked.find((item) => item.id === part.id)?.outputs ?? [{ id: "", name: part.name || part.id }];

const weightFact = (part: PartId, onTheScale: boolean): FactKey =>
  part === "base" ? (onTheScale ? "mix.scale_g" : "mix.cooked_g") : `part.${part}.${onTheScale ? "scale_g" : "made_g"}`;

function PartSlip({
  editing,
  part,
  worked,
  kitchen,
  way,
}: {
  editing: Editing;
  part: Part;
  worked: PartResult;
  kitchen: KitchenSettings;
  way: WayCard;
}) {
  const { weightFigure, weightWords } = useFormatters();
  const families = useQuery(familiesQuery);
  const { sheet, edit, adjust } = editing;
  const { facts } = editing.worked;
  const set = (change: Partial<Part>) => edit(withPart(sheet, part.id, (was) => ({ ...was, ...change })));
  const fitting = families.data?.filter((item: FamilyCard) => item.roles.includes(part.role)) ?? [];
  const kind = families.data?.find((item) => item.id === (part.family || worked.family));
  const base = part.role === "base";
  const beside = base ? null : part.id;
  const oil = beside && facts[`part.${beside}.oil_g`];
  const pieces = facts["shape.pieces"] ?? facts["cut.pieces"];
  return (
    <Popover.Root>
      <Popover.Trigger
        id={`part-${part.id}`}
        className="text-left font-bold underline decoration-hair underline-offset-4 hover:text-bean hover:decoration-bean"
      >
        {part.name || part.id}
        <span className="sr-only">
          <Trans>: what kind of part, its pan, shared with whom</Trans>
        </span>
      </Popover.Trigger>
      <Slip label={part.name || part.id} wide>
        <Row label={t`Called`}>
          <input
            aria-label={t`Name of the part`}
            className="write text-right"
            maxLength={60}
            value={part.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </Row>
        {!base && (
          <PickRow
            label={t`It is`}
            value={part.family || worked.family}
            options={fitting.map((item) => [item.id, item.name] as const)}
            onChange={(family) => set({ family, schools: {} })}
          />
        )}
        {kind?.choices.map((choice) => (
          <PickRow
            key={choice.id}
            label={choice.title}
            value={part.schools[choice.id] ?? choice.default_for?.[way.form] ?? choice.default}
            options={choice.schools.map((school) => [school.id, `${school.label}: ${school.buys}`] as const)}
            onChange={(school) => set({ schools: { ...part.schools, [choice.id]: school } })}
          />
        ))}
        <p className="py-1 text-sm text-ink2">
          <Trans>
            Done when: {worked.says}. {weightWords(worked.raw_g, 0)} go in,{" "}
            {worked.low_g === worked.high_g
              ? t`${weightWords(worked.made_g, 0)} are made`
              : t`${weightFigure(worked.low_g)} to ${weightWords(worked.high_g, 0)} are made`}
            .{" "}
            {oil && (
              <FactFigure facts={facts} name={`part.${beside}.oil_g`} className="font-bold text-ink">
                <Trans>{weightWords(Number(oil.value), 0)} of oil part from it</Trans>
              </FactFigure>
            )}
          </Trans>
        </p>
        {beside && worked.outputs.some((output) => output.household) && (
          <p className="py-1 text-sm text-ink2">
            {worked.outputs
              .filter((output) => output.household)
              .map((output) => t`${weightWords(output.made_g, 0)} of ${output.name} are ${output.household}`)
              .join("; ")}
            .
          </p>
        )}
        {beside && (
          <FactRows facts={facts} keys={[`part.${beside}.boil_off_g_per_min`, `part.${beside}.boil_off_min`]} />
        )}
        {worked.reduced && (
          <PickRow
            label={t`Finished in`}
            value={part.pan}
            options={[
              ["", kitchen.pans?.length ? t`a pan not weighed` : t`a pan (weigh yours on the Kitchen page)`] as const,
              ...(kitchen.pans ?? []).map(
                (pan) => [pan.name, t`${pan.name}, ${weightWords(pan.empty_g)} empty`] as const,
              ),
            ]}
            onChange={(pan) => set({ pan })}
          />
        )}
        {pieces && !base && part.role !== "filling" && part.role !== "heart" && part.role !== "wrapper" && (
          <Row label={t`For each piece`}>
            <WeightField
              label={t`For each piece`}
              hideLabel
              value={part.each_g ?? null}
              within={limit("Part.each_g")}
              width="4rem"
              onClear={() => set({ each_g: null })}
              onChange={(each_g) => set({ each_g })}
            />
          </Row>
        )}
        {!base && (
          <>
            <Row label={t`Kept back`}>
              <SomeField
                label={t`Kept back`}
                some={part.kept ?? null}
                madeG={worked.made_g}
                onChange={(kept) => set({ kept })}
                onClear={() => set({ kept: null })}
              />
              {part.kept && (
                <input
                  aria-label={t`Kept back for`}
                  className="write ml-2 w-32"
                  placeholder={t`for …`}
                  maxLength={60}
                  value={part.kept_for}
                  onChange={(event) => set({ kept_for: event.target.value })}
                />
              )}
            </Row>
            {worked.outputs.map((output, i) => (
              <PlaceRows
                key={output.id}
                label={i === 0 ? t`The rest goes` : t`${capital(output.name)} goes`}
                sheet={sheet}
                way={way}
                part={part.id}
                place={part.rest[outputKey(i, output.id)] ?? output.place}
                onChange={(place) => edit(withPlace(sheet, part.id, outputKey(i, output.id), place))}
              />
            ))}
            <Row label={t`Make as much again`}>
              {[0.5, 1.5, 2].map((factor) => (
                <button
                  key={factor}
                  type="button"
                  className="pick ml-2"
                  onClick={() => adjust({ by: "part", part_id: part.id, factor })}
                >
                  × {factor}
                </button>
              ))}
            </Row>
            <Shared editing={editing} part={part} />
          </>
        )}
        <div className="mt-3 flex justify-between">
          {base ? (
            <span />
          ) : (
            <button type="button" className="pick" onClick={() => edit(withoutPart(sheet, part.id))}>
              <Trans>Take the part out</Trans>
            </button>
          )}
          <Popover.Close className="pick">
            <Trans>close</Trans>
          </Popover.Close>
        </div>
      </Slip>
    </Popover.Root>
  );
}
