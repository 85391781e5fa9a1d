import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { noticeChanges, noticeFor, type Changed, type NoticeRule } from "./notice";

const rule = (changes: Partial<NoticeRule> & { id?: number } = {}) => ({
  ...{ id: 1, on: "state" as const, into: [], mailboxes: [], channels: [] },
  ...changes,
});
const settled: Changed = { on: "state", into: "settled", mailbox: 3, channel: "email" };

describe("the notice for a change", () => {
  test.each<[string, Partial<NoticeRule>, boolean]>([
    ["any state", {}, true],
    ["another state", { into: ["open"] }, false],
    ["one of several states", { into: ["open", "settled"] }, true],
    ["something else that changed", { on: "topic" }, false],
    ["another mailbox", { mailboxes: [1, 2] }, false],
    ["its mailbox", { mailboxes: [2, 3] }, true],
    ["another channel", { channels: ["sms"] }, false],
    ["its channel", { channels: ["sms", "email"] }, true],
  ])("of %s", (_name, changes, isMeant) => {
    expect(noticeFor([rule(changes)], settled) !== null).toBe(isMeant);
  });

  test("is the first that fits, in their order", () => {
    const rules = [rule({ id: 1, into: ["open"] }), rule({ id: 2 }), rule({ id: 3, into: ["settled"] })];
    expect(noticeFor(rules, settled)?.id).toBe(2);
  });

  test("names no mailbox where the case came to none of its own", () => {
    expect(noticeFor([rule({ mailboxes: [3] })], { ...settled, mailbox: null })).toBeNull();
    expect(noticeFor([rule()], { ...settled, mailbox: null })).not.toBeNull();
  });

  test("of an owner or a promise asks for no state, whatever is left of one", () => {
    const changed = { ...settled, into: null };
    for (const on of ["owner", "promise"] as const)
      expect(noticeFor([rule({ on, into: ["settled"] })], { ...changed, on })).not.toBeNull();
  });

  test("of no topic any more is one of any topic alone", () => {
    const none = { ...settled, on: "topic" as const, into: null };
    expect(noticeFor([rule({ on: "topic", into: ["freight"] })], none)).toBeNull();
    expect(noticeFor([rule({ on: "topic" })], none)).not.toBeNull();
  });

  const anyRule = fc.record({
    on: fc.constantFrom(...noticeChanges),
    into: fc.subarray(["open", "settled", "freight"]),
    mailboxes: fc.subarray([1, 2, 3]),
    channels: fc.subarray(["email", "sms", "chat"]),
  });
  const anyChange = fc.record({
    on: fc.constantFrom(...noticeChanges),
    into: fc.constantFrom("open", "settled", "freight", null),
    mailbox: fc.constantFrom(1, 2, 3, null),
    channel: fc.constantFrom("email", "sms", "chat"),
  });

  test("is none in a chat", () => {
    fc.assert(
      fc.property(fc.array(anyRule), anyChange, (rules, changed) => {
        expect(noticeFor(rules, { ...changed, channel: "chat" })).toBeNull();
      }),
    );
  });

  test("stays the one it is, whatever stands behind it", () => {
    fc.assert(
      fc.property(fc.array(anyRule), fc.array(anyRule), anyChange, (rules, more, changed) => {
        const found = noticeFor(rules, changed);
        if (found !== null) expect(noticeFor([...rules, ...more], changed)).toBe(found);
      }),
    );
  });

  test("asks for no less when a rule is for more", () => {
    fc.assert(
      fc.property(anyRule, anyChange, (narrow, changed) => {
        const wide = { ...narrow, mailboxes: [], channels: [], into: [] };
        if (noticeFor([narrow], changed) !== null) expect(noticeFor([wide], changed)).not.toBeNull();
      }),
    );
  });
});
