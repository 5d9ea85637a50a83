/** Shape for pieces: one in cross-section under the hand, what runs out first, a rolled sheet, or the weigh-out editing. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { BallDrawing, FactKey, Facts, Sheet } from "../../api/client";
import { limit } from "../../api/limits";
import { WeighOut } from "../../bench/WeighOut";
import { withPart, withSchool } from "../../sheet/edits";
import { WeightField } from "../../ui/AmountField";
import { FactFigure } from "../../ui/FactFigure";
import { FigureRow } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { LengthField } from "../../ui/LengthField";
import { Schools } from "../../ui/Schools";
import { Picks } from "../../ui/ToggleChoice";
import { capital } from "../../ui/words";
import type { StationProps } from "../props";
import { InEach } from "./InEach";
import { LeafFold } from "./LeafFold";
import { LeafRows } from "./LeafRows";
import { Packet } from "./Packet";
import { PieceSection } from "./PieceSection";
import { type Across, enough, weighed } from "./piece";
import { RolledDrawn, RolledRows } from "./RolledSheet";
import { RunsOut } from "./RunsOut";

type View = "piece" | "rolled" | "weigh";

export function PieceShape({ editing, way, drawing }: Omit<StationProps, "kitchen"> & { drawing: BallDrawing | null }) {
  const { sheet, worked, edit } = editing;
  const { facts } = worked;
  const [chosen, setView] = useState<View>("piece");
  const [hand, setHand] = useState<Across | null>(null);
  const views: [View, string][] = [
    ["piece", t`one piece`],
    ...(drawing?.rolled ? ([["rolled", t`rolled and cut`]] as [View, string][]) : []),
    ["weigh", t`weigh out`],
  ];
  const view = views.some(([id]) => id === chosen) ? chosen : "piece";

  const take = (remedy: BallDrawing["remedies"][number]) => {
    const next = { ...sheet, pieces: remedy.pieces };
    const { factor } = remedy;
    edit({
      ...next,
      parts: next.parts.map((part) =>
        part.role === remedy.role
          ? {
              ...part,
              lines: part.lines.map((line) => ({
                ...line,
                amount: { ...line.amount, value: line.amount.value * factor },
              })),
            }
          : part,
      ),
    });
  };
  const drop = (at: Across) => {
    if (!drawing) return;
    const { dough_g, filling_g } = weighed(drawing, at);
    const within = drawing.core_mm > 0 ? { filling_g: +filling_g.toFixed(1) } : {};
    edit({ ...sheet, pieces: { ...finish(sheet.pieces), dough_g: +dough_g.toFixed(1), ...within } });
  };

  return (
    <div className="mt-3">
      <Picks label={t`What is shown`} value={view} options={views} onPick={setView} className="mb-1" />
      {view === "weigh" && <WeighOut editing={editing} way={way} />}
      {view !== "weigh" && (
        <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]">
          <section aria-label={view === "piece" ? t`The piece in cross-section` : t`The sheet of dough`}>
            {drawing && view === "piece" && (
              <PieceSection
                drawing={drawing}
                facts={facts}
                onDrag={setHand}
                onDrop={drop}
                folded={<Folded drawing={drawing} facts={facts} wrap={sheet.wrap} leaves={way.leaves_each} />}
              />
            )}
            {drawing?.rolled && view === "rolled" && <RolledDrawn rolled={drawing.rolled} facts={facts} />}
          </section>
          <div>
            {view === "rolled" && drawing && <RolledRows editing={editing} drawing={drawing} />}
            {view === "piece" && (
              <>
                {drawing && !drawing.cannot && (
                  <RunsOut
                    editing={editing}
                    drawing={drawing}
                    facts={facts}
                    live={hand ? enough(drawing, weighed(drawing, hand)) : null}
                    onTake={take}
                  />
                )}
                <InEach editing={editing} way={way} drawing={drawing} />
                {drawing && (
                  <LeafRows
                    wrap={sheet.wrap}
                    facts={facts}
                    drawing={drawing}
                    way={way}
                    onChange={(wrap) => edit({ ...sheet, wrap })}
                  />
                )}
                <Heart editing={editing} />
                <PartsOnIt editing={editing} />
                <Frozen editing={editing} />
              </>
            )}
            <Schools
              way={way}
              station="shape"
              schools={sheet.schools}
              onChoose={(choice, school) => edit(withSchool(sheet, choice, school))}
            />
          </div>
        </div>
      )}
    </div>
  );
}

/** What is not a measure of a piece, and stays when its measures change. */
const finish = ({ count, bare_pct, trim_pct }: Sheet["pieces"]) => ({ count, bare_pct, trim_pct });

interface FoldedProps {
  drawing: BallDrawing;
  facts: Facts;
  wrap: Sheet["wrap"];
  leaves: number;
}

/** A parcel from its leaf, a packet on its foil. */
function Folded({ drawing, facts, wrap, leaves }: FoldedProps) {
  if (drawing.form === "parcel") return <LeafFold facts={facts} wrap={wrap} leaves={wrap.leaves ?? leaves} />;
  return drawing.form === "packet" ? <Packet facts={facts} wrap={wrap.outer ?? "leaf-foil"} /> : null;
}

/** The whole fruit or nut in the middle: how heavy one is, and how large. */
function Heart({ editing }: { editing: StationProps["editing"] }) {
  const { figure } = useFormatters();
  const { sheet, worked, edit } = editing;
  const part = sheet.parts.find((part) => part.role === "heart");
  if (!part) return null;
  const { facts } = worked;
  const value = (key: string) => (facts[key] ? Number(facts[key]?.value) : null);
  const set = (change: Partial<typeof part>) => edit(withPart(sheet, "heart", (item) => ({ ...item, ...change })));
  return (
    <div className="mt-3 flex flex-wrap items-baseline gap-x-5">
      <b>{capital(part.name || t`whole fruit or nut`)}</b>
      <WeightField
        label={t`one weighs`}
        value={part.each_g ?? value("shape.heart_g")}
        within={limit("Part.each_g")}
        width="3.4rem"
        onChange={(each_g) => set({ each_g })}
      />
      <LengthField
        label={t`across`}
        value={part.each_mm ?? value("shape.heart_mm")}
        decimals={0}
        within={limit("Part.each_mm")}
        width="3.4rem"
        onChange={(each_mm) => set({ each_mm })}
      />
      {facts["shape.paste_mm"] && (
        <FactFigure facts={facts} name="shape.paste_mm">
          <Trans>{figure(facts["shape.paste_mm"])} mm round it</Trans>
        </FactFigure>
      )}
    </div>
  );
}

/** What else goes on or round each piece, and the leaves to soak. */
function PartsOnIt({ editing }: { editing: StationProps["editing"] }) {
  const { figure, weightUnit } = useFormatters();
  const { facts } = editing.worked;
  const rows = editing.sheet.parts
    .flatMap(({ name, role }): { name: string; key: FactKey; unit: string }[] =>
      role === "base"
        ? []
        : [
            {
              name: t`${capital(name || role)} for each`,
              key: `part.${role}.piece_g` as const,
              unit: ` ${weightUnit()}`,
            },
          ],
    )
    .concat([{ name: t`Leaves to soak, spares in`, key: "shape.wrappers", unit: "" }])
    .filter(({ key }) => facts[key]);
  if (!rows.length) return null;
  return (
    <ul className="mt-3">
      {rows.map(({ name, key, unit }) => (
        <FigureRow key={key} label={name} facts={facts} name={key}>
          {facts[key] && figure(facts[key])}
          {unit}
        </FigureRow>
      ))}
    </ul>
  );
}

function Frozen({ editing }: { editing: StationProps["editing"] }) {
  const { facts } = editing.worked;
  if (!facts["rest.freeze_filling_min"]) return null;
  const told = (name: FactKey, unit: string) => (
    <FactFigure facts={facts} name={name} className="font-bold">
      {Number(facts[name]?.value).toFixed(0)} {unit}
    </FactFigure>
  );
  return (
    <p className="mt-3">
      <Trans>
        Filling balls: {told("rest.freeze_filling_min", "min")} in the freezer, then{" "}
        {told("rest.take_out", t`at a time`)} to the board: they soften in {told("rest.soften_min", "min")}.
      </Trans>
    </p>
  );
}
