import { describe, expect, test } from "@jest/globals";
import { readMarkdown } from "../formats/markdown";
import type { Context } from "../tokens/context";
import { factsRead, factsReadBy, steadyOf } from "./facts-read";

const context = {
  case: { number: "SF-1", state: "closed", owner: "Bram" },
  house: { desk_phone: "01632 960 100", refund_days: 7, constructor_like: "x" },
  ask: { soup: "https://shelf.example.com/q/soup" },
  written: { "house.desk_phone": { language: "en", others: { de: "anders" } } },
} satisfies Pick<Context, "case" | "house" | "ask" | "written">;

const slip = (markdown: string, changes: Partial<Parameters<typeof factsRead>[0][number]> = {}) => ({
  ...{ document: readMarkdown(markdown).doc, blanks: {}, passages: {}, subject: null },
  ...changes,
});

describe("what words read of the house's own", () => {
  test("is what their tokens, links, conditions, defaults and subject name, and nothing else", () => {
    const read = factsRead(
      [
        slip("Call {$house.desk_phone}, {$customer.first_name}. [Soup?]({$ask.soup})", {
          passages: { late: { when: { value: "house.refund_days", is: "more", to: 3 } } },
        }),
        slip("Fine.", { subject: "Within {$house.hours}" }),
      ],
      context,
    );
    expect(read).toEqual({
      "ask.soup": { value: context.ask.soup, written: null },
      "house.desk_phone": { value: "01632 960 100", written: { language: "en", others: { de: "anders" } } },
      "house.hours": { value: null, written: null },
      "house.refund_days": { value: 7, written: null },
    });
  });

  test("is how their case stands, where they say it, and nothing else of it", () => {
    expect(factsRead([slip("{$case.number} is {$case.state}.")], context)).toEqual({
      "case.state": { value: "closed", written: null },
    });
    expect(steadyOf({ ...context.case, time_spent: "1 minute", berth: 7 })).toEqual({
      number: "SF-1",
      berth: 7,
    });
  });

  test("reads no name that a record has by itself", () => {
    expect(factsReadBy([readMarkdown("{$house.constructor}").doc], context)).toEqual({
      "house.constructor": { value: null, written: null },
    });
  });

  test("of words without any is nothing, whatever the house knows", () => {
    expect(factsRead([slip("Hello {$customer.first_name}."), slip("Bye.")], context)).toEqual({});
  });

  test("is the same after JSON, in whatever order the words name it", () => {
    const one = factsRead([slip("{$house.refund_days} {$house.desk_phone}")], context);
    const other = factsRead([slip("{$house.desk_phone}"), slip("{$house.refund_days}")], context);
    expect(JSON.parse(JSON.stringify(one))).toEqual(other);
    expect(JSON.stringify(one)).toBe(JSON.stringify(other));
  });
});
