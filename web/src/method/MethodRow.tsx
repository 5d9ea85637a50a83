/** One step of the method: what goes in, what to do, how long; opened, it can be timed, worded, moved, parted and left out. */

import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { FactKey, Facts, LongStep, MethodText, OwnStep, Sheet, StepResult } from "../api/client";
import type { Editing } from "../sheet/useSheet";
import { FactFigure } from "../ui/FactFigure";
import { useFormatters } from "../ui/formatters";
import { LinkButton } from "../ui/LinkButton";
import { fill, type Material } from "../ui/materials";
import { Picks } from "../ui/ToggleChoice";
import { duration, HANDS_WORDS, minutes } from "../ui/words";
import { changeOf, isText, ownOf, withChange, withOwn, withText } from "./entries";
import { GivenTimeField } from "./GivenTimeField";
import { LongStepHere } from "./LongSteps";
import { Stages } from "./Stages";

interface Props {
  step: StepResult;
  number: number;
  /** What its vessel holds after it. */
  material: Material | null;
  /** Steps of the sheet that cost hours. */
  long: LongStep[];
  editing: Editing;
  isOpen: boolean;
  onOpen: () => void;
  /** By so many rows. */
  onMove: (by: number) => void;
  isFirst: boolean;
  isLast: boolean;
}

export function MethodRow(props: Props) {
  const { step, number, editing, isOpen, onOpen, onMove } = props;
  const { sheet, edit, worked } = editing;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: step.id,
  });
  const isOwn = ownOf(sheet, step.entry) !== undefined;
  const notes = worked.method.notes.filter((note) => note.step === step.id);
  const texts = sheet.method.filter(isText).filter((text) => text.after === step.id || text.after === step.entry);
  const leaveOut = () =>
    edit(isOwn ? withOwn(sheet, step.entry, () => null) : withChange(sheet, step.entry, { skip: true }));
  return (
    <li
      ref={setNodeRef}
      data-step={step.id}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`hairline relative bg-paper py-1.5 ${isDragging ? "z-10 border-t border-hair" : ""}`}
      onKeyDown={(event) => {
        if (!event.altKey || !(event.target as HTMLElement).matches("[data-open]")) return;
        const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
        if (by) {
          event.preventDefault();
          onMove(by);
        }
      }}
    >
      <div className="flex gap-x-2">
        <span className="w-5 flex-none pt-0.5 text-ink2 max-sm:hidden" aria-hidden="true">
          {number}
        </span>
        <Fill material={props.material} />
        <div className="min-w-0 flex-1">
          <h3 className="font-sans text-[17px] leading-snug font-bold">
            <button
              type="button"
              data-open
              aria-expanded={isOpen}
              className={`text-left hover:underline underline-offset-4 ${isOwn ? "text-bean" : ""}`}
              onClick={onOpen}
            >
              {step.title}
            </button>
            <span aria-hidden="true" className="hidden print:inline">
              {step.title}
            </span>
          </h3>
          <GoesIn step={step} facts={worked.facts} />
          <Words step={step} isOpen={isOpen} />
          {isOpen && step.tools.length > 0 && (
            <p className="text-[15px] text-ink2">
              <Trans>Set out: {step.tools.join(", ")}</Trans>
            </p>
          )}
          <LongStepHere step={step} all={props.long} editing={editing} />
          {notes.map((note) => (
            <p key={note.says} className="text-look" role="status">
              {note.kind === "not-followed" ? <b>{t`Not followed.`} </b> : null}
              {note.says}
            </p>
          ))}
          {texts.map((text) => (
            <Sentence key={text.text} text={text} isOpen={isOpen} sheet={sheet} edit={edit} />
          ))}
          {isOpen && <Editor {...props} isOwn={isOwn} onLeaveOut={leaveOut} />}
        </div>
        <Time step={step} isOwn={isOwn} facts={worked.facts} />
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={t`Move “${step.title}”`}
          className="flex h-9 w-9 flex-none cursor-grab touch-none items-center justify-center text-ink2 print:hidden"
        >
          <svg width="12" height="18" aria-hidden="true">
            {[2, 9].flatMap((x) =>
              [2, 9, 16].map((y) => <circle key={`${x} ${y}`} cx={x} cy={y} r="1.6" fill="currentColor" />),
            )}
          </svg>
        </button>
      </div>
    </li>
  );
}

/** On a narrow page, where there is no score: what the step's vessel holds then. */
function Fill({ material }: { material: Material | null }) {
  return (
    <span
      aria-hidden="true"
      className={`relative w-4 flex-none self-stretch lg:hidden ${material ? "border border-ink" : ""}`}
    >
      {material && (
        <svg width="100%" height="100%" className="absolute inset-0" aria-hidden="true">
          <rect width="100%" height="100%" fill={fill(material)} />
        </svg>
      )}
    </span>
  );
}

/** The minutes that clocks and plans go by, and what is known beside them. */
function Time({ step, isOwn, facts }: { step: StepResult; isOwn: boolean; facts: Facts }) {
  const given = step.given?.is_used ? step.given : null;
  const ours = step.predicted?.minutes;
  const isFact = !given && facts[step.fact as FactKey]?.value === step.minutes;
  const range = step.window
    ? [step.window.first_check, step.window.latest]
    : step.between
      ? [step.between.least, step.between.most]
      : null;
  const beside = given
    ? t`${given.by || t`yours`} · Kemble ${minutes(ours ?? step.minutes)}`
    : step.given
      ? t`${step.given.by || t`yours`} ${duration(step.given.minutes)}, not used`
      : range && Math.round(range[1] as number) > Math.round(range[0] as number)
        ? t`${duration(range[0] as number).replace(/ min$/, "")} to ${duration(range[1] as number)}`
        : HANDS_WORDS[step.hands];
  return (
    <span className="max-w-[9rem] flex-none text-right leading-tight">
      <b className={`block text-[17px] ${given || isOwn ? "text-bean" : step.window ? "text-green" : ""}`}>
        <FactFigure facts={facts} name={(isFact ? step.fact : "") as FactKey}>
          {duration(step.minutes)}
        </FactFigure>
      </b>
      <span className="text-[14px] text-ink2">{beside}</span>
    </span>
  );
}

function GoesIn({ step, facts }: { step: StepResult; facts: Facts }) {
  const { weightWords } = useFormatters();
  if (!step.to_hand.length && !step.brings.length && !step.target && !step.tins.length) return null;
  const target = step.target && (
    // Where something joins later, the scale shows another number than the fact.
    <FactFigure facts={facts} name={(step.target.beyond_g === 0 ? step.target.key : "") as FactKey}>
      {weightWords(step.target.grams)}
    </FactFigure>
  );
  return (
    <p className="text-[15px]">
      {[...step.to_hand, ...step.brings].map((item, i) => (
        <span key={`${item.name} ${item.act}`} className={item.ingredient ? "text-ink2" : ""}>
          {i > 0 && " · "}
          {item.name.toLowerCase()}
          {item.act && `, ${item.act}`} <b>{weightWords(item.grams)}</b>
          {item.household && <span className="text-ink2"> {item.household}</span>}
        </span>
      ))}
      {step.tins.map((tin, i) => (
        <span key={tin.size}>
          {i > 0 && " · "}
          <Trans>
            {tin.count} × {tin.size}, each <b>{weightWords(tin.grams)}</b>
          </Trans>
        </span>
      ))}
      {step.target && (
        <span>
          {step.to_hand.length + step.brings.length > 0 && " · "}
          <Trans>
            the scale shows <b>{target}</b>
          </Trans>
        </span>
      )}
    </p>
  );
}

/** The cook's own words first, then the card's, smaller: the beginning while the row is shut, all of it on paper. */
function Words({ step, isOpen }: { step: StepResult; isOpen: boolean }) {
  return (
    <>
      {step.own_words && !isOpen && <p className="whitespace-pre-line text-[15px]">“{step.own_words}”</p>}
      <p
        className={`text-ink2 ${step.own_words ? "text-[14px]" : "text-[15px]"} ${isOpen ? "" : "line-clamp-1 print:line-clamp-none"}`}
      >
        {step.words} {step.cue?.question}{" "}
        {step.cue && <span className={isOpen ? "" : "hidden print:inline"}>{step.cue.how}</span>}
      </p>
    </>
  );
}

/** A sentence of the recipe that is no step. */
function Sentence(props: { text: MethodText; isOpen: boolean; sheet: Sheet; edit: (sheet: Sheet) => void }) {
  const { text, isOpen, sheet, edit } = props;
  return (
    <p className="text-[15px]">
      “{text.text}”{" "}
      {isOpen && (
        <LinkButton onClick={() => edit(withText(sheet, text, null))}>
          <Trans>take it out</Trans>
        </LinkButton>
      )}
    </p>
  );
}

const PLACES = {
  counter: t`the counter`,
  burner: t`a burner`,
  oven: t`the oven`,
  fridge: t`the fridge`,
  freezer: t`the freezer`,
} as const;

const FLAT = /(board|tray|plate|rack)$/;

/** Where a step of the cook's own is done: in the vessel that the one before it left, or by itself; and what it stands on. */
function OwnPlace({ step, own, editing }: { step: StepResult; own: OwnStep; editing: Editing }) {
  const { sheet, edit, worked } = editing;
  const before = worked.steps.find((other) => other.id === own.after)?.vessel?.vessel;
  const change = (next: Partial<OwnStep>) => edit(withOwn(sheet, own.own, (was) => ({ ...was, ...next })));
  return (
    <div className="contents">
      {before && (
        <Picks
          label={t`Where it is done`}
          value={step.vessel ? "in" : "beside"}
          options={[
            ["in", FLAT.test(before) ? t`on the ${before}` : t`in the ${before}`],
            ["beside", t`elsewhere`],
          ]}
          onPick={(where) => change({ at: where === "in" ? before : "" })}
        />
      )}
      <Chosen
        label={t`it needs`}
        value={own.on ?? ""}
        options={[["", t`what is usual`], ...Object.entries(PLACES)]}
        onPick={(on) => change({ on: (on || null) as OwnStep["on"] })}
      />
      <Chosen
        label={t`done before`}
        value={own.before}
        options={[
          ["", t`anything`],
          ...worked.steps
            .slice(worked.steps.indexOf(step) + 1)
            .map((other): [string, string] => [other.id, other.title]),
        ]}
        onPick={(before) => change({ before })}
      />
    </div>
  );
}

interface ChosenProps {
  label: string;
  value: string;
  options: [string, string][];
  onPick: (id: string) => void;
}

/** One of several, in a line with others: its words before it. */
function Chosen({ label, value, options, onPick }: ChosenProps) {
  return (
    <label>
      <span className="mr-2 text-ink2">{label}</span>
      <select className="write min-h-9 max-w-56" value={value} onChange={(event) => onPick(event.target.value)}>
        {options.map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

function Editor(props: Props & { isOwn: boolean; onLeaveOut: () => void }) {
  const { step, editing, isOwn, onMove, onLeaveOut, isFirst, isLast } = props;
  const { sheet, edit, worked } = editing;
  const entry = changeOf(sheet, step.entry);
  const own = ownOf(sheet, step.entry);
  const words = own?.words ?? entry?.words ?? "";
  return (
    <div className="mt-2 flex flex-col gap-y-3 border-l-2 border-hair pb-2 pl-3">
      {own && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <input
            aria-label={t`What this step is called`}
            className="write min-h-9 flex-1 basis-52"
            maxLength={80}
            value={own.title || step.title}
            onChange={(event) => edit(withOwn(sheet, own.own, (was) => ({ ...was, title: event.target.value })))}
          />
          <Picks
            label={t`What it asks of you`}
            value={{ held: "both", minded: "eye", free: "none" }[step.hands] as "both" | "eye" | "none"}
            options={[
              ["both", HANDS_WORDS.held],
              ["eye", HANDS_WORDS.minded],
              ["none", HANDS_WORDS.free],
            ]}
            onPick={(hands) => edit(withOwn(sheet, own.own, (was) => ({ ...was, hands })))}
          />
        </div>
      )}
      <div className={own ? "flex flex-wrap items-center gap-x-5 gap-y-1" : ""}>
        <GivenTimeField step={step} sheet={sheet} worked={worked} edit={edit} />
        {own && <OwnPlace step={step} own={own} editing={editing} />}
      </div>
      <textarea
        aria-label={t`Your own words for “${step.title}”`}
        placeholder={t`your own words, or your recipe’s`}
        rows={1}
        className="write w-full resize-none py-1.5 font-normal [field-sizing:content]"
        maxLength={2000}
        value={words}
        onChange={(event) =>
          edit(
            own
              ? withOwn(sheet, own.own, (was) => ({ ...was, words: event.target.value }))
              : withChange(sheet, step.entry, { words: event.target.value }),
          )
        }
      />
      {!own && <Stages step={step} sheet={sheet} edit={edit} />}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="pick !min-h-9" disabled={isFirst} onClick={() => onMove(-1)}>
          <Trans>earlier</Trans>
        </button>
        <button type="button" className="pick !min-h-9" disabled={isLast} onClick={() => onMove(1)}>
          <Trans>later</Trans>
        </button>
        {entry?.after && (
          <button
            type="button"
            className="pick !min-h-9"
            onClick={() => edit(withChange(sheet, step.entry, { after: "" }))}
          >
            <Trans>to its own place</Trans>
          </button>
        )}
        <button type="button" className="pick !min-h-9" onClick={onLeaveOut}>
          {isOwn ? t`take it out` : t`leave it out`}
        </button>
      </div>
    </div>
  );
}
