/** The method: every step in working order like a recipe, the vessels as a score beside them; each can be done otherwise. */

import {
  type CollisionDetection,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Fragment, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { StepResult, WorkResult } from "../api/client";
import type { Editing } from "../sheet/useSheet";
import { useRoom } from "../ui/Drawing";
import { LinkButton } from "../ui/LinkButton";
import { duration } from "../ui/words";
import { AddStep } from "./AddStep";
import { CopyMethod } from "./CopyMethod";
import { withChange, withMoved } from "./entries";
import { useLongSteps } from "./LongSteps";
import { MethodRow } from "./MethodRow";
import { Score } from "./Score";
import { scoreOf } from "./score";

export default function MethodStation({ editing }: { editing: Editing }) {
  const { sheet, edit, worked } = editing;
  const { steps } = worked;
  const [open, setOpen] = useState("");
  const list = useRef<HTMLOListElement>(null);
  const tops = useRowTops(list);
  const score = useMemo(() => scoreOf(steps), [steps]);
  const long = useLongSteps(editing);
  const [box, width] = useRoom<HTMLDivElement>(440, 60);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const at = (id: string) => steps.findIndex((step) => step.id === id);
  const move = (from: number, to: number) => {
    if (to >= 0 && to < steps.length) edit(withMoved(sheet, steps, from, to));
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(at(String(active.id)), at(String(over.id)));
  };
  return (
    <section aria-label={t`The method, step by step`} className="mt-3">
      <Sum worked={worked} />
      <div className="grid gap-x-6 lg:grid-cols-[minmax(0,5fr)_minmax(0,8fr)]">
        <div ref={box} className="max-lg:hidden">
          <Score score={score} tops={tops} width={width} />
        </div>
        <div className="min-w-0">
          <DndContext
            sensors={sensors}
            collisionDetection={underThePointer}
            onDragEnd={onDragEnd}
            accessibility={{
              announcements: announcements(steps),
              screenReaderInstructions: { draggable: HOW_TO_MOVE },
            }}
          >
            <SortableContext items={steps.map((step) => step.id)} strategy={verticalListSortingStrategy}>
              <ol ref={list} className="border-t border-hair">
                <LeftOut worked={worked} after="" editing={editing} />
                {steps.map((step, i) => (
                  <Fragment key={step.id}>
                    <MethodRow
                      step={step}
                      number={i + 1}
                      material={score.looks[i] ?? null}
                      long={long}
                      editing={editing}
                      isOpen={open === step.id}
                      onOpen={() => setOpen(open === step.id ? "" : step.id)}
                      onMove={(by) => move(i, i + by)}
                      isFirst={i === 0}
                      isLast={i === steps.length - 1}
                    />
                    <LeftOut worked={worked} after={step.id} editing={editing} />
                  </Fragment>
                ))}
              </ol>
            </SortableContext>
          </DndContext>
          <div className="flex flex-wrap items-center gap-x-6 gap-y-2 py-3">
            <AddStep
              editing={editing}
              steps={steps.map((step) => step.id)}
              after={lastBeforeServing(steps)}
              onAdded={setOpen}
            />
            <CopyMethod editing={editing} />
          </div>
          <Dormant worked={worked} editing={editing} />
        </div>
      </div>
    </section>
  );
}

/** Rows are of many heights, an opened one tall: the row under the pointer counts; for keys, the nearest. */
const underThePointer: CollisionDetection = (moving) => {
  const under = pointerWithin(moving);
  return under.length ? under : closestCenter(moving);
};

const HOW_TO_MOVE = t`Press space to take the step up, the arrow keys to move it, space to put it down, escape to leave it where it was.`;

function announcements(steps: readonly StepResult[]) {
  const title = (id: string | number) => steps.find((step) => step.id === id)?.title ?? "";
  return {
    onDragStart: ({ active }: { active: { id: string | number } }) => t`${title(active.id)} is taken up.`,
    onDragOver: ({ active, over }: { active: { id: string | number }; over: { id: string | number } | null }) =>
      over ? t`${title(active.id)} is at ${title(over.id)}.` : undefined,
    onDragEnd: ({ active }: { active: { id: string | number } }) => t`${title(active.id)} is put down.`,
    onDragCancel: ({ active }: { active: { id: string | number } }) => t`${title(active.id)} stays where it was.`,
  };
}

/** Where a new step comes first: behind the last one before serving. */
const lastBeforeServing = (steps: readonly StepResult[]) => {
  const served = steps.findIndex((step) => step.serves);
  return steps[served - 1]?.id ?? "";
};

/** Where every row begins, in pixels from the list's head, and where the list ends. */
function useRowTops(list: React.RefObject<HTMLOListElement | null>): number[] {
  const [tops, setTops] = useState<number[]>([]);
  useLayoutEffect(() => {
    const ol = list.current;
    if (!ol) return;
    const look = () => {
      const rows = [...ol.querySelectorAll<HTMLElement>(":scope > [data-step]")];
      const next = [...rows.map((row) => row.offsetTop - ol.offsetTop), ol.offsetHeight];
      setTops((was) => (was.length === next.length && was.every((top, i) => top === next[i]) ? was : next));
    };
    look();
    if (typeof ResizeObserver === "undefined") return;
    const watch = new ResizeObserver(look);
    watch.observe(ol);
    return () => watch.disconnect();
  });
  return tops;
}

function Sum({ worked }: { worked: WorkResult }) {
  const count = worked.steps.length;
  const of = (hands: StepResult["hands"]) =>
    worked.steps.filter((step) => step.hands === hands).reduce((sum, step) => sum + step.minutes, 0);
  return (
    <p className="mb-2 flex flex-wrap items-baseline gap-x-3">
      <b className="text-xl">{plural(count, { one: "# step", other: "# steps" })}</b>
      <span className="text-ink2">
        <Trans>
          {duration(of("held"))} with both hands, {duration(of("minded"))} with an eye on it
        </Trans>
      </span>
    </p>
  );
}

/** Steps that this cook leaves out, where they would be. */
function LeftOut({ worked, after, editing }: { worked: WorkResult; after: string; editing: Editing }) {
  const { sheet, edit } = editing;
  return worked.method.left_out
    .filter((step) => step.after === after)
    .map((step) => (
      <li key={step.id} className="hairline flex flex-wrap items-baseline gap-x-3 py-1 pl-7 text-ink2">
        <s>{step.title}</s>
        <LinkButton onClick={() => edit(withChange(sheet, step.entry, { skip: false }))}>
          <Trans>put it back</Trans>
        </LinkButton>
      </li>
    ));
}

/** Entries for steps that these choices do not have: they wait, and can be taken out. */
function Dormant({ worked, editing }: { worked: WorkResult; editing: Editing }) {
  const { sheet, edit } = editing;
  const { dormant } = worked.method;
  if (!dormant.length) return null;
  const names = new Set(dormant.map((item) => item.entry));
  return (
    <p className="text-ink2">
      <Trans>
        Not used with these choices: {dormant.map((item) => item.title).join(", ")}.{" "}
        <LinkButton
          onClick={() =>
            edit({
              ...sheet,
              method: sheet.method.filter(
                (entry) => !names.has("step" in entry ? entry.step : "own" in entry ? entry.own : ""),
              ),
            })
          }
        >
          Take them out
        </LinkButton>
      </Trans>
    </p>
  );
}
