/** What is fixed, and the rest follows: one press chooses the measure, one field says how much of it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { ToggleGroup } from "radix-ui";
import { type ReactNode, useState } from "react";
import type { WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import type { Editing } from "../../sheet/useSheet";
import { WeightField } from "../../ui/AmountField";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { said } from "../../words/said";

type Fixed = "base" | "batch" | "cooked" | "depth" | "pieces" | "people" | "short";

export function MakeIt({ editing, way }: { editing: Editing; way: WayCard }) {
  const { sheet, adjust } = editing;
  const { facts, drawings, lines, parts } = editing.worked;
  const [fixed, setFixed] = useState<Fixed | "">("");
  const [people, setPeople] = useState({ people: 24, each: 2 });
  const [short, setShort] = useState("0 0");
  const number = (key: string) => Number(facts[key]?.value ?? 0);
  const tin = drawings.shape ? drawings.shape.kind === "tin" : way.form === "tin";
  const count = tin ? sheet.cut.pieces : number("shape.pieces");
  const pieceG = tin ? number("mix.cooked_g") / Math.max(1, sheet.cut.pieces) : number("shape.base_g");
  const options: [Fixed, string][] = [
    ...(tin ? ([["depth", t`fill the tin`]] as [Fixed, string][]) : []),
    ["base", t`from the ${said(way.base)}`],
    ["pieces", t`so many pieces`],
    ["people", t`so many people`],
    ["cooked", t`cooked weight`],
    ["batch", t`all in the bowl`],
    ["short", t`short of …`],
  ];
  const grams = (by: Fixed, key: string, words: string) => (
    <WeightField
      label={words}
      value={number(key)}
      decimals={0}
      within={limit("Adjustment.grams")}
      step={10}
      onChange={(value) => adjust({ by: by as "base", grams: value })}
    />
  );
  // What there is too little of: a line by its place, or a part that is made, by its name.
  const made = parts.filter((part) => part.role !== "base" && part.role !== "wrapper");
  const part = made.find((item) => item.id === short);
  const [shortPart = 0, shortLine = 0] = short.split(" ").map(Number);
  const line = lines.find((line) => line.part === shortPart && line.line === shortLine);
  const fields: Record<Fixed, () => ReactNode> = {
    base: () => grams("base", "mix.base_g", t`From ${said(way.base)} of`),
    batch: () => grams("batch", "mix.batch_g", t`All in the bowl`),
    cooked: () => grams("cooked", "mix.cooked_g", t`Cooked, it is to weigh`),
    depth: () => (
      <LengthField
        label={t`Fill the tin`}
        value={number("shape.depth_mm")}
        after={t` deep`}
        decimals={0}
        within={limit("Adjustment.mm")}
        width="4rem"
        onChange={(mm) => adjust({ by: "depth", mm })}
      />
    ),
    pieces: () => (
      <>
        <NumberField
          label={t`Make`}
          value={count}
          unit="pieces"
          decimals={0}
          within={limit("Adjustment.count")}
          width="4rem"
          onChange={(value) => adjust({ by: "pieces", count: Math.round(value), piece_g: pieceG })}
        />{" "}
        <WeightField
          label={t`of`}
          value={pieceG}
          after={tin ? "" : ` ${way.words.dough ?? t`dough`}`}
          decimals={1}
          within={limit("Adjustment.piece_g")}
          width="4.4rem"
          onChange={(piece_g) => adjust({ by: "pieces", count, piece_g })}
        />
      </>
    ),
    people: () => (
      <>
        {(["people", "each"] as const).map((name) => (
          <NumberField
            key={name}
            className="mr-3"
            label={name === "people" ? t`For` : ""}
            value={people[name]}
            unit={name === "people" ? t`people,` : t`pieces each`}
            decimals={name === "people" ? 0 : 1}
            within={limit(`Adjustment.${name}`)}
            width="3.6rem"
            onChange={(value) => {
              const next = { ...people, [name]: name === "people" ? Math.round(value) : value };
              setPeople(next);
              adjust({ by: "people", ...next });
            }}
          />
        ))}
      </>
    ),
    short: () => (
      <>
        <label>
          <Trans>
            Short of{" "}
            <select className="write max-w-52" value={short} onChange={(event) => setShort(event.target.value)}>
              {made.map((item) => (
                <option key={item.id} value={item.id}>
                  <Trans>{item.name}, made</Trans>
                </option>
              ))}
              {lines.map((line) => (
                <option key={`${line.part} ${line.line}`} value={`${line.part} ${line.line}`}>
                  {line.name.toLowerCase()}
                </option>
              ))}
            </select>
          </Trans>
        </label>{" "}
        <WeightField
          label={t`only`}
          value={part?.have_g ?? line?.grams ?? null}
          decimals={1}
          within={limit("Adjustment.grams")}
          onChange={(value) =>
            part
              ? adjust({ by: "have", part_id: part.id, grams: value })
              : adjust({ by: "line", part: shortPart, line: shortLine, grams: value })
          }
        />
      </>
    ),
  };
  return (
    <div className="mt-2">
      <p id="make-it" className="text-ink2">
        <Trans>Make it</Trans>
      </p>
      <ToggleGroup.Root
        type="single"
        value={fixed}
        onValueChange={(value) => setFixed(value as Fixed | "")}
        aria-labelledby="make-it"
        className="mt-1 flex flex-wrap gap-1.5"
      >
        {options.map(([id, words]) => (
          <ToggleGroup.Item key={id} value={id} className="pick !px-3 text-[15px]">
            {words}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {fixed && <div className="mt-2">{fields[fixed]()}</div>}
    </div>
  );
}
