import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { re2Patterns } from "../conditions/re2";
import { KeptCounts } from "./counts";
import { decide } from "./decide";
import { effectsOf, effectsSchema, MOST_TAGS, withTags } from "./effects";
import { incomingSchema } from "./message";
import {
  isAskedOf,
  keyOfOccasion,
  occasionOf,
  silenceDueAt,
  type Broken,
  type Occasion,
  type Trigger,
} from "./occasion";
import { standingRuleSchema } from "./rule";

const HOUR = 60 * 60_000;
const t0 = Date.parse("2026-11-20T10:00:00Z");
const message = incomingSchema.parse({
  ...{ id: 1, at: "2026-11-20T09:00:00Z", channel: "email", from: "ana@example.org", to: "desk@example.com" },
  ...{ body: "Thank you, I shall think about it.", case: { number: 7, state: "waiting on the customer" } },
});
const rule = (id: string, trigger: Trigger, given: object = {}) => ({
  ...standingRuleSchema.parse({
    ...{ id, name: id, reply: "still-there", mode: "send", switched_on_at: "2026-11-01T00:00:00Z", ...given },
  }),
  trigger,
});
const silent = (hours: number, before: Broken[] = []): Occasion => ({
  ...{ on: "silence", of: "customer", since: t0, at: t0 + hours * HOUR, before },
});
const asked = (rules: ReturnType<typeof rule>[], occasion: Occasion, counts = new KeptCounts()) =>
  decide(message, { rules, own: new Set(), counts, patterns: re2Patterns, occasion });

describe("when a silence is long enough", () => {
  test("it is from its hour on, and of the one who is silent", () => {
    const three: Trigger = { on: "silence", of: "customer", hours: 72 };
    expect(isAskedOf(three, silent(71.9)).fits).toBe(false);
    expect(isAskedOf(three, silent(72)).fits).toBe(true);
    expect(isAskedOf({ ...three, of: "us" }, silent(100)).fits).toBe(false);
    expect(isAskedOf(three, { on: "arrival", at: t0 })).toMatchObject({ fits: false });
  });

  test("between two reminders lies as long as their rules say, though the first went late", () => {
    // The first was to go after 24 hours and went after 100: the second, after 72, goes 48 later.
    expect(silenceDueAt(72, t0, [{ hours: 24, at: t0 + 100 * HOUR }])).toBe(t0 + 148 * HOUR);
    expect(silenceDueAt(72, t0, [{ hours: 24, at: t0 + 24 * HOUR }])).toBe(t0 + 72 * HOUR);
    // What was to come later or at once with it does not hold it up.
    expect(silenceDueAt(72, t0, [{ hours: 72, at: t0 + 90 * HOUR }])).toBe(t0 + 72 * HOUR);
  });

  test("whatever was done before, it is never due before its hours, nor nearer to what was done than the rules say", () => {
    const broken = fc.record({
      hours: fc.integer({ min: 1, max: 200 }),
      late: fc.integer({ min: 0, max: 500 }),
    });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), fc.array(broken, { maxLength: 6 }), (hours, all) => {
        const before = all.map((one) => ({ hours: one.hours, at: t0 + (one.hours + one.late) * HOUR }));
        const due = silenceDueAt(hours, t0, before);
        expect(due).toBeGreaterThanOrEqual(t0 + hours * HOUR);
        for (const one of before)
          if (one.hours < hours) expect(due - one.at).toBeGreaterThanOrEqual((hours - one.hours) * HOUR);
      }),
    );
  });

  test("one that began before the rule was switched on is none of its business", () => {
    const late = rule(
      "late",
      { on: "silence", of: "customer", hours: 24 },
      { switched_on_at: "2026-11-21T00:00:00Z" },
    );
    const { said, answers } = asked([late], silent(72));
    expect(answers).toBeNull();
    expect(said).toEqual([{ rule: "late", does: "passes", why: "it began before the rule was switched on" }]);
  });

  test("reminders are not counted as answers on the thread, which end a ping-pong", () => {
    const counts = new KeptCounts();
    for (let at = 0; at < 5; at += 1)
      counts.note({ rule: "other", sender: "x@example.org", thread: "case 7", sent: true, at: t0 });
    const reminder = rule("reminder", { on: "silence", of: "customer", hours: 24 });
    expect(asked([reminder], silent(24), counts)).toMatchObject({
      answers: "reminder",
      done: [{ thread: null, sent: true }],
    });
    const arrival = rule("arrival", { on: "arrival" });
    expect(asked([arrival], { on: "arrival", at: t0 }, counts).said[0]?.does).toBe("held");
  });

  test("what may never be answered is not reminded either", () => {
    const robot = { ...message, headers: { "auto-submitted": "auto-replied" } };
    const reminder = rule("reminder", { on: "silence", of: "customer", hours: 24 });
    const given = {
      rules: [reminder],
      own: new Set<string>(),
      counts: new KeptCounts(),
      patterns: re2Patterns,
    };
    expect(decide(robot, { ...given, occasion: silent(24) }).said[0]).toMatchObject({ does: "held" });
  });
});

describe("when a case changes", () => {
  const into = (on: "state" | "topic", to: string | null): Occasion => ({ on, into: to, at: t0 });
  test.each<[Trigger, Occasion, boolean]>([
    [{ on: "state", into: ["settled"] }, into("state", "settled"), true],
    [{ on: "state", into: ["settled"] }, into("state", "open"), false],
    [{ on: "state", into: [] }, into("state", "open"), true],
    [{ on: "topic", into: ["refunds"] }, into("topic", "refunds"), true],
    [{ on: "topic", into: ["refunds"] }, into("topic", null), false],
    [{ on: "topic", into: [] }, into("topic", null), true],
    [{ on: "topic", into: [] }, into("state", "open"), false],
    [{ on: "owner" }, { on: "owner", at: t0 }, true],
    [{ on: "owner" }, { on: "arrival", at: t0 }, false],
  ])("%j is asked of %j: %s", (trigger, occasion, fits) => {
    expect(isAskedOf(trigger, occasion).fits).toBe(fits);
  });

  test("why not is said in people’s words", () => {
    expect(isAskedOf({ on: "state", into: ["settled"] }, into("state", "open")).why).toContain("open");
    expect(isAskedOf({ on: "topic", into: ["refunds"] }, into("topic", null)).why).toContain("–");
  });

  test("now is when it happened, not when the message came", () => {
    const later = rule(
      "later",
      { on: "owner" },
      { when: { value: "customer.since", is: "before", to: "now" } },
    );
    const known = { ...message, customer: { since: "2026-11-20T09:30:00Z" } };
    const given = { rules: [later], own: new Set<string>(), counts: new KeptCounts(), patterns: re2Patterns };
    expect(decide(known, { ...given, occasion: { on: "owner", at: t0 } }).answers).toBe("later");
    expect(decide(known, { ...given, rules: [{ ...later, trigger: { on: "arrival" } }] }).answers).toBeNull();
  });
});

test("an occasion of the past is one that its rule is asked of, whatever it is", () => {
  const triggers = fc.constantFrom<Trigger>(
    { on: "arrival" },
    { on: "owner" },
    { on: "state", into: ["settled", "open"] },
    { on: "topic", into: [] },
    { on: "silence", of: "us", hours: 8 },
    { on: "silence", of: "customer", hours: 100 },
  );
  fc.assert(
    fc.property(triggers, fc.integer({ min: 0, max: 4e12 }), (trigger, at) => {
      expect(isAskedOf(trigger, occasionOf(trigger, at, "open")).fits).toBe(true);
    }),
  );
});

test("occasions of one case are told apart by what happened and when it began", () => {
  expect(keyOfOccasion({ on: "arrival", at: t0 })).toBe("arrival");
  expect(keyOfOccasion(silent(72))).toBe("silence 2026-11-20T10:00:00.000Z");
  expect(keyOfOccasion(silent(99))).toBe(keyOfOccasion(silent(72)));
  expect(keyOfOccasion({ on: "owner", at: t0 })).not.toBe(keyOfOccasion({ on: "topic", into: null, at: t0 }));
});

describe("what else happens to a case", () => {
  const effects = effectsSchema.parse({ state: "settled", topic: " weather ", tags: ["storm "], owner: 3 });
  test("a state comes with a letter that goes alone; what is not answered changes nothing", () => {
    expect(effects).toMatchObject({ topic: "weather", tags: ["storm"] });
    expect(effectsOf(effects, "send")).toEqual(effects);
    for (const does of ["prepare", "instead"] as const)
      expect(effectsOf(effects, does)).toEqual({ topic: "weather", tags: ["storm"], owner: 3 });
    expect(effectsOf(effects, "held")).toEqual({});
  });

  test.each([
    { state: "new" },
    { tags: [""] },
    { tags: ["a, b"] },
    { tags: ["x".repeat(41)] },
    { owner: "me" },
  ])("%j is refused", (given) => expect(effectsSchema.safeParse(given).success).toBe(false));

  test("tags are each there once, as they were written first, and no more than so many", () => {
    expect(withTags(["Storm", "late"], ["storm", " Late ", "dog"])).toEqual(["Storm", "late", "dog"]);
    const tags = fc.array(fc.string({ maxLength: 12 }), { maxLength: 40 });
    fc.assert(
      fc.property(tags, tags, (some, more) => {
        const all = withTags(some, more);
        expect(withTags(all, all)).toEqual(all);
        expect(all.length).toBeLessThanOrEqual(MOST_TAGS);
        expect(new Set(all.map((one) => one.toLocaleLowerCase("en"))).size).toBe(all.length);
      }),
    );
  });
});
