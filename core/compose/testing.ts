import { re2Patterns } from "../conditions/re2";
import { readMarkdown } from "../formats/markdown";
import { ferryDetails } from "../../demo/details";
import { catalogue, type Token } from "../tokens/catalogue";
import { contextSchema, type Context } from "../tokens/context";
import type { ComposeInput } from "./compose";
import type { Slip } from "./slip";

/** Building blocks for tests: a case of the ferry line, slips from Markdown, and what surrounds them. */

const testTokens: ReadonlyMap<string, Token> = catalogue({
  details: ferryDetails,
  houseFacts: [{ key: "refund_days", label: "days until a refund", type: "number", example: 5 }],
});

export function testContext(changes: Partial<Record<keyof Context, unknown>> = {}): Context {
  return contextSchema.parse({
    case: { number: "SF-20417", subject: "friday boat??", topic: "sailings", channel: "email" },
    customer: {
      first_name: "Ottoline",
      last_name: "Achterberg",
      full_name: "Ottoline Achterberg",
      email: "ottoline@example.org",
    },
    organisation: {},
    booking: {
      reference: "QW7-K2M",
      sails_at: "2026-11-27T07:40:00Z",
      from: "Tarn Head",
      to: "Pellick",
      fare: { amount: 118, currency: "EUR" },
      passengers: 2,
      vehicle: "van",
    },
    agent: { name: "Maren Oduya", first_name: "Maren", department: "Passenger desk" },
    house: { refund_days: 5 },
    message: { subject: "friday boat??", body: "do i get my money back", channel: "email" },
    now: "2026-11-25T10:00:00Z",
    time_zone: "Europe/Lisbon",
    ...changes,
  });
}

export function testSlip(markdown: string, changes: Partial<Slip> = {}): Slip {
  return {
    id: "s1",
    reply: "put-off",
    title: "Sailing put off by weather",
    part: "answer",
    document: readMarkdown(markdown).doc,
    blanks: {},
    passages: {},
    values: {},
    subject: null,
    attachments: [],
    ...changes,
  };
}

export function testInput(slips: Slip[], changes: Partial<ComposeInput> = {}): ComposeInput {
  return {
    slips,
    context: testContext(),
    channel: "email",
    language: "en",
    tokens: testTokens,
    patterns: re2Patterns,
    signature: null,
    stationery: null,
    subject: { from: "thread" },
    threadSubject: "friday boat??",
    caseNumber: "SF-20417",
    attachments: [],
    ...changes,
  };
}
