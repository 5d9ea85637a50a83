/** The flow as a drawing: parts in the order in which they are made, every band as thick as it is heavy. Geometry only. */

import { t } from "@lingui/core/macro";
import type { LineResult, OutputFlow, OutputResult, PartId, PartResult, Sheet } from "../../api/client";

export const WIDTH = 680;
/** Where the words of the lines end, and their bands begin. */
export const LABELS_X = 182;
/** Where all ends that leaves the flow: in what is eaten, beside it, kept. */
export const SINK_X = 540;
export const BAR_WIDTH = 10;
const FIRST = 240; // where the bars of the parts stand that take of no other ...
const LAST = 380; // ... and those of the last
const GAP = 26; // between two parts; their names stand in it
const PITCH = 16; // words keep clear of the next ones, however thin their band
const LEAST = 1.5;
const INK = 300; // all that goes in, drawn one on the other

type Point = [number, number];

export interface Band {
  key: string;
  from: Point;
  to: Point;
  thick: number;
  group: string;
  grams: number;
  /** What flows on from a part, to be carried elsewhere; nothing for a line. */
  flow?: Flow;
}

export interface Flow {
  part: PartId;
  output: OutputResult;
  /** Which of the part's outputs it is; the first is what the part is made for. */
  nth: number;
  goes: OutputFlow;
}

export interface Bar {
  id: PartId;
  name: string;
  x: number;
  top: number;
  raw: number;
  made: number;
  part: PartResult;
}

export interface Sink {
  id: string;
  name: string;
  /** What it is for, where that is said. */
  says: string;
  top: number;
  height: number;
  grams: number;
}

export interface Words {
  key: string;
  y: number;
  name: string;
  grams: number;
}

export interface FlowDrawn {
  height: number;
  bands: Band[];
  bars: Bar[];
  sinks: Sink[];
  words: Words[];
}

/** What goes into a part, or is held back of one of its lines. */
interface Incoming {
  key: string;
  grams: number;
  group: string;
  /** What it is called; nothing for what is taken of another part, which is named there. */
  words?: string;
  /** What it is held back for. */
  held?: string;
}

/** Something that leaves the flow, and where it ends. */
interface End {
  key: string;
  grams: number;
  sink: string;
  name: string;
}

const SINK_NAMES: Record<string, string> = { kept: "kept", beside: t`beside it`, held: t`held back`, whole: t`to eat` };

export function drawnFlow(sheet: Sheet, lines: LineResult[], parts: PartResult[]): FlowDrawn {
  const order = [...parts].sort((a, b) => a.nth - b.nth);
  const ids = new Set(order.map((part) => part.id));
  const flows = order.flatMap((part) =>
    part.outputs.flatMap((output, nth) => output.goes.map((goes) => ({ part: part.id, output, nth, goes }))),
  );
  const into = new Map(order.map((part) => [part.id, incoming(part.id, lines, flows)]));
  const all = [...into.values()].flat();
  const total = gramsOf(all) || 1;
  const thick = (grams: number) => Math.max(LEAST, (grams / total) * INK);
  const depth = depths(order, flows);
  const deepest = Math.max(1, ...depth.values());
  const flowDrawn: FlowDrawn = { height: 0, bands: [], bars: [], sinks: [], words: [] };
  const from = new Map<string, Point>();
  const to = new Map<string, Point>();
  let y = GAP;
  for (const part of order) {
    const going = into.get(part.id) ?? [];
    const listed = going.filter((incoming) => incoming.words);
    const raw = sumOf(going.filter((incoming) => incoming.held === undefined).map((incoming) => thick(incoming.grams)));
    const row = Math.max(raw, PITCH * listed.length, PITCH * 1.5);
    const x = FIRST + ((LAST - FIRST) * (depth.get(part.id) ?? 0)) / deepest;
    const top = y + (row - raw) / 2;
    listed.forEach((incoming, i) => {
      const middle = y + (row / listed.length) * (i + 0.5);
      flowDrawn.words.push({ key: incoming.key, y: middle, name: incoming.words ?? "", grams: incoming.grams });
      from.set(incoming.key, [LABELS_X, middle - thick(incoming.grams) / 2]);
    });
    let at = top;
    for (const eachIncoming of going.filter((each) => each.held === undefined)) {
      to.set(eachIncoming.key, [x, at]);
      at += thick(eachIncoming.grams);
    }
    const made = sumOf(part.outputs.map((output) => thick(output.made_g)));
    let out = top + (raw - made) / 2;
    for (const flow of flows.filter((each) => each.part === part.id)) {
      from.set(keyOf(flow), [x + BAR_WIDTH, out]);
      out += thick(flow.goes.grams);
    }
    const name = sheet.parts.find((eachPart) => eachPart.id === part.id)?.name || part.id;
    flowDrawn.bars.push({ id: part.id, name, x, top, raw, made, part });
    y += row + GAP;
  }
  const ends = [...flows.filter((flow) => !ids.has(flow.goes.to)).map(endOf), ...all.flatMap(heldOf)];
  flowDrawn.sinks = stacked(ends, thick, from, to);
  const band = (key: string, grams: number, group: string, flow?: Flow) =>
    flowDrawn.bands.push({
      key,
      from: from.get(key) ?? [0, 0],
      to: to.get(key) ?? [0, 0],
      thick: thick(grams),
      group,
      grams,
      flow,
    });
  for (const one of all) if (one.words) band(one.key, one.grams, one.group);
  for (const flow of flows) band(keyOf(flow), flow.goes.grams, flow.output.group, flow);
  flowDrawn.height = Math.ceil(
    Math.max(y, ...flowDrawn.sinks.map((sink) => sink.top + Math.max(sink.height, PITCH * 2) + 8)),
  );
  return flowDrawn;
}

export const keyOf = ({ part, output, goes }: Flow) => `${part}.${output.id} ${goes.to} ${goes.name} ${goes.take}`;

/** What goes into a part: of parts made before it first, then its lines, and the shares of other parts' lines. */
function incoming(part: string, lines: LineResult[], flows: Flow[]): Incoming[] {
  const taken = flows
    .filter((flow) => flow.goes.to === part)
    .map((flow): Incoming => ({ key: keyOf(flow), grams: flow.goes.grams, group: flow.output.group }));
  return [...taken, ...lines.flatMap((line) => sharesOf(line, part))];
}

/** The shares of a line that go into a part; with its own part also what is held back of it. */
function sharesOf(line: LineResult, part: string): Incoming[] {
  const whole = { to: line.part_id, at: "", grams: line.used_g };
  const shares = line.carried.some((item) => item.to) ? line.carried : [whole, ...line.carried];
  return shares.flatMap((share, i): Incoming[] => {
    const result = { key: `${line.part}-${line.line}-${i}`, grams: share.grams, group: line.group };
    if (!share.to) return line.part_id === part ? [{ ...result, words: line.name, held: share.at }] : [];
    return share.to === part ? [{ ...result, words: share.at ? `${line.name}, ${share.at}` : line.name }] : [];
  });
}

/** How many parts lie before each: a part stands to the right of all that goes into it. */
function depths(order: PartResult[], flows: Flow[]): Map<string, number> {
  const depth = new Map<string, number>();
  for (const part of order) {
    const before = flows.filter((flow) => flow.goes.to === part.id);
    depth.set(part.id, Math.max(0, ...before.map((flow) => (depth.get(flow.part) ?? 0) + 1)));
  }
  return depth;
}

/** Where what leaves the flow ends: each as high as what goes there comes from, as far as there is room. */
function stacked(
  ends: End[],
  thick: (grams: number) => number,
  from: Map<string, Point>,
  to: Map<string, Point>,
): Sink[] {
  const middle = (end: End) => (from.get(end.key)?.[1] ?? 0) + thick(end.grams) / 2;
  const sinks = [...new Set(ends.map((end) => end.sink))].map((id) => {
    const own = ends.filter((end) => end.sink === id);
    const grams = gramsOf(own) || 1;
    return { id, own, at: sumOf(own.map((end) => (middle(end) * end.grams) / grams)) };
  });
  sinks.sort((a, b) => a.at - b.at);
  let y = GAP;
  return sinks.map(({ id, own, at: centre }) => {
    const height = sumOf(own.map((end) => thick(end.grams)));
    const top = Math.max(y, centre - height / 2);
    let at = top;
    for (const end of own) {
      to.set(end.key, [SINK_X, at]);
      at += thick(end.grams);
    }
    y = top + Math.max(height, PITCH * 2) + GAP / 2;
    const name = SINK_NAMES[id] ?? own[0]?.name ?? id;
    const says =
      id === "whole" || id === "beside" ? [] : own.map((end) => end.name).filter((eachName) => eachName !== name);
    return { id, name, says: [...new Set(says)].join(", "), top, height, grams: gramsOf(own) };
  });
}

const endOf = (flow: Flow): End => ({
  key: keyOf(flow),
  grams: flow.goes.grams,
  sink: flow.goes.to === "sheet" ? `sheet ${flow.goes.name}` : flow.goes.to,
  name: flow.goes.name,
});

const heldOf = (incoming: Incoming): End[] =>
  incoming.held === undefined ? [] : [{ key: incoming.key, grams: incoming.grams, sink: "held", name: incoming.held }];

const sumOf = (all: number[]) => all.reduce((sum, value) => sum + value, 0);
const gramsOf = (all: { grams: number }[]) => sumOf(all.map((item) => item.grams));

/** A band's outline, as thick where it ends as where it begins. */
export function bandPath({ from: [x0, y0], to: [x1, y1], thick }: Band): string {
  const mid = (x0 + x1) / 2;
  return `M${x0} ${y0}C${mid} ${y0} ${mid} ${y1} ${x1} ${y1}v${thick}C${mid} ${y1 + thick} ${mid} ${y0 + thick} ${x0} ${y0 + thick}Z`;
}
