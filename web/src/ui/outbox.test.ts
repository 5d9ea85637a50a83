import { expect, it } from "vitest";
import { added, due, MAX_FAILURES, nextTry, notTaken, type Outbox, opened, sendAgain, taken, waiting } from "./outbox";

interface Thing {
  uid: string;
  lane?: string;
}

const stumbled = [{ path: "the kitchen", says: "stumbled over this", accepts: "" }];
const uids = (things: Thing[]) => things.map((thing) => thing.uid);

function filled(...things: Thing[]) {
  return things.reduce((box, thing) => added(box, thing), opened<Thing>([]));
}

/** Sends until nothing is due, at any hour: `answers` says with which status each is answered. */
function sentAll(start: Outbox<Thing>, answers: (thing: Thing) => number) {
  let box = start;
  const sent: string[] = [];
  for (let now = 0; sent.length < 100; now = nextTry(box) ?? now) {
    const eachThing = due(box, now);
    if (!eachThing) return { box, sent };
    sent.push(eachThing.uid);
    const status = answers(eachThing);
    box = status === 200 ? taken(box, eachThing.uid) : notTaken(box, eachThing, status, stumbled, now);
    if (nextTry(box) === null) return { box, sent };
  }
  return { box, sent };
}

it("sets aside what the server fails on, keeps it, and goes on with what stands behind it", () => {
  const start = filled({ uid: "first" }, { uid: "bad" }, { uid: "last" });
  const { box, sent } = sentAll(start, (thing) => (thing.uid === "bad" ? 500 : 200));
  expect(sent).toEqual(["first", ...Array(MAX_FAILURES).fill("bad"), "last"]);
  expect(box.entries).toEqual([{ one: { uid: "bad" }, refused: null, failures: MAX_FAILURES, aside: stumbled }]);
  expect(waiting(box)).toEqual([]);
});

it("tries it as often again once somebody says so", () => {
  const { box } = sentAll(filled({ uid: "bad" }), () => 500);
  const { sent } = sentAll(sendAgain(box, "bad"), () => 500);
  expect(sent).toHaveLength(MAX_FAILURES);
  expect(sentAll(sendAgain(box, "bad"), () => 200).box.entries).toEqual([]);
});

it.each([0, 401, 403, 410, 429, 503, 507])(
  "waits as long as it takes where the thing itself is not at fault: %i",
  (status) => {
    const { box, sent } = sentAll(filled({ uid: "first" }, { uid: "second" }), () => status);
    expect(new Set(sent)).toEqual(new Set(["first"]));
    expect(uids(waiting(box))).toEqual(["first", "second"]);
  },
);

it.each([400, 413, 422])("takes an answer for final that no second try can change: %i", (status) => {
  const { box, sent } = sentAll(filled({ uid: "bad" }, { uid: "last" }), (thing) =>
    thing.uid === "bad" ? status : 200,
  );
  expect(sent).toEqual(["bad", "last"]);
  expect(box.entries[0]?.refused).toEqual(stumbled);
});
