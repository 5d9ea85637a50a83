/**
 * A change replayed on another sheet than the one it was made on.
 *
 * `from` and `to` are the sheet before and after the change, `onto` the sheet as it has become meanwhile. What the
 * change left alone stays as it is in `onto`. Where both changed the same thing to different values, the change wins
 * and the place is a clash. Parts are told apart by their role, lines by their ingredient, entries of the method by their
 * step, and ingredients of the cook's own by their id, not by their place.
 */

export interface Clash {
  path: string[];
  mine: unknown;
  theirs: unknown;
}

export interface Merged<T> {
  value: T;
  clashes: Clash[];
}

type Json = Record<string, unknown>;
const ABSENT = Symbol("absent");

export function replay<T>(from: T, to: T, onto: T): Merged<T> {
  const clashes: Clash[] = [];
  return { value: merge(from, to, onto, [], clashes) as T, clashes };
}

export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, i) => same(item, b[i]));
  if (!isObject(a) || !isObject(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && same(a[key], b[key]));
}

function merge(from: unknown, to: unknown, onto: unknown, path: string[], clashes: Clash[]): unknown {
  if (same(from, onto) || same(to, onto)) return to;
  if (same(from, to)) return onto;
  if (isObject(from) && isObject(to) && isObject(onto)) return mergeObjects(from, to, onto, path, clashes);
  if (Array.isArray(from) && Array.isArray(to) && Array.isArray(onto)) {
    if ([...from, ...to, ...onto].every((member) => nameOf(member) !== null))
      return mergeNamed(from, to, onto, path, clashes);
    if (from.length === to.length && to.length === onto.length)
      return to.map((item, i) => merge(from[i], item, onto[i], [...path, String(i)], clashes));
  }
  clashes.push({ path, mine: to, theirs: onto });
  return to;
}

function mergeObjects(from: Json, to: Json, onto: Json, path: string[], clashes: Clash[]): Json {
  const value: Json = {};
  for (const key of new Set([...Object.keys(onto), ...Object.keys(to)])) {
    const result = mergeEntry(at(from, key), at(to, key), at(onto, key), [...path, key], clashes);
    if (result !== ABSENT) value[key] = result;
  }
  return value;
}

/** One thing that any of the three may lack. */
function mergeEntry(from: unknown, to: unknown, onto: unknown, path: string[], clashes: Clash[]): unknown {
  if (to === ABSENT || onto === ABSENT) {
    const kept = to === ABSENT ? onto : to;
    if (from === ABSENT || kept === ABSENT) return kept; // one of the two put it there, or both took it out
    if (same(from, kept)) return ABSENT; // taken out by one, left alone by the other
    clashes.push({ path, mine: to === ABSENT ? null : to, theirs: onto === ABSENT ? null : onto });
    return to;
  }
  if (from === ABSENT) return merge(null, to, onto, path, clashes);
  return merge(from, to, onto, path, clashes);
}

type Named = Map<string, unknown>;

function mergeNamed(from: unknown[], to: unknown[], onto: unknown[], path: string[], clashes: Clash[]): unknown[] {
  const [before, mine, theirs] = [from, to, onto].map(named) as [Named, Named, Named];
  const moved = !same(inBoth(before, mine), inBoth(mine, before));
  const order = together(moved ? mine : theirs, moved ? theirs : mine);
  return order
    .map((key) => mergeEntry(got(before, key), got(mine, key), got(theirs, key), [...path, key], clashes))
    .filter((item) => item !== ABSENT);
}

const NAMES = ["id", "ingredient", "step", "own", "text"];

/** What a member of a list is told from the others by; null when it has no such thing. */
function nameOf(member: unknown): string | null {
  const name = isObject(member) ? NAMES.find((each) => each in member) : undefined;
  return name === undefined ? null : String((member as Json)[name]);
}

/** By name; the second of a name is another. */
function named(all: unknown[]): Named {
  const foundNamed: Named = new Map();
  for (const item of all) {
    const base = nameOf(item) ?? "";
    let key = base;
    for (let n = 2; foundNamed.has(key); n += 1) key = `${base} ${n}`;
    foundNamed.set(key, item);
  }
  return foundNamed;
}

const inBoth = (a: Named, b: Named) => [...a.keys()].filter((key) => b.has(key));

/** The keys of `first` in their order, those of `other` alone each after the one that it followed there. */
function together(first: Named, other: Named): string[] {
  const order = [...first.keys()];
  let last = -1;
  for (const key of other.keys()) {
    const place = order.indexOf(key);
    if (place >= 0) last = place;
    else order.splice(++last, 0, key);
  }
  return order;
}

const got = (all: Named, key: string) => (all.has(key) ? all.get(key) : ABSENT);
const at = (json: Json, key: string) => (key in json ? json[key] : ABSENT);
const isObject = (item: unknown): item is Json => typeof item === "object" && item !== null && !Array.isArray(item);
