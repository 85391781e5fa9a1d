import Handlebars from "handlebars";
import { ferryDetails } from "../demo/details";
import { marked } from "marked";
import { secondLook } from "#core/checks/second-look";
import { compose, type ComposeInput } from "#core/compose/compose";
import { guessLanguage } from "#core/language/guess";
import { re2Patterns } from "#core/conditions/re2";
import { readMarkdown } from "#core/formats/markdown";
import { catalogue } from "#core/tokens/catalogue";
import { contextSchema } from "#core/tokens/context";

/** A letter of twelve tokens and three passages, composed with trace and checks, beside a template of the same text. Runs as built: see `main.ts`. */

const source = [
  "Hello {$customer.first_name},",
  "",
  "the {$booking.sails_at :time precision=minute} from {$booking.from} to {$booking.to} on {$booking.sails_at :date length=long} is put off because of {$booking.cause}.",
  "",
  ":::passage{#change}",
  "We have kept a place for you on the {$booking.new_ship}, which sails on {$booking.new_sails_at :datetime dateLength=long timePrecision=minute}.",
  ":::",
  "",
  ":::passage{#car}",
  "Your {$booking.vehicle} travels with you under {$booking.reference}.",
  ":::",
  "",
  ":::passage{#refund}",
  "We pay {$booking.fare} back.",
  ":::",
  "",
  "Kind regards",
  "",
  "{$agent.name}",
].join("\n");

const template = [
  "Hello {{customer.first_name}},",
  "",
  "the {{time booking.sails_at}} from {{booking.from}} to {{booking.to}} on {{date booking.sails_at}} is put off because of {{booking.cause}}.",
  "",
  "{{#if booking.new_ship}}We have kept a place for you on the {{booking.new_ship}}, which sails on {{date booking.new_sails_at}} {{time booking.new_sails_at}}.{{/if}}",
  "",
  "{{#if booking.vehicle}}Your {{booking.vehicle}} travels with you under {{booking.reference}}.{{/if}}",
  "",
  "{{#if refund}}We pay {{money booking.fare}} back.{{/if}}",
  "",
  "Kind regards",
  "",
  "{{agent.name}}",
].join("\n");

const context = contextSchema.parse({
  case: { number: "SF-1", subject: "boat" },
  customer: { first_name: "Ana", full_name: "Ana Brandt", email: "ana@example.org" },
  booking: {
    reference: "QW7-K2M",
    sails_at: "2026-11-27T07:40:00Z",
    new_sails_at: "2026-11-28T06:15:00Z",
    from: "Tarn Head",
    to: "Pellick",
    cause: "wind",
    new_ship: "Second Tide",
    vehicle: "van",
    fare: { amount: 118, currency: "EUR" },
  },
  agent: { name: "Maren Oduya" },
  now: "2026-11-25T10:00:00Z",
  time_zone: "Europe/London",
});

const input: ComposeInput = {
  slips: [
    {
      id: "s",
      reply: "put-off",
      title: "Put off",
      part: "answer",
      language: "en",
      document: readMarkdown(source).doc,
      blanks: {},
      values: {},
      subject: null,
      attachments: [],
      passages: {
        change: { when: { value: "booking.new_ship", is: "present" } },
        car: { when: { value: "booking.vehicle", is: "present" } },
        refund: { when: { value: "booking.status", is: "equals", to: "cancelled" } },
      },
    },
  ],
  context,
  channel: "email",
  language: "en-GB",
  tokens: catalogue({ details: ferryDetails }),
  patterns: re2Patterns,
  signature: null,
  stationery: null,
  subject: { from: "thread" },
  threadSubject: "boat",
  caseNumber: "SF-1",
  attachments: [],
};

function ours(): string {
  const letter = compose(input);
  const checks = secondLook({
    ...input,
    letter,
    recipient: "ana@example.org",
    otherNames: [],
    sentReplies: [],
    standing: { is: "known", news: null, confirmed: false },
    languageOf: guessLanguage,
  });
  if (checks.length > 0 || letter.trace.length === 0) throw new Error(checks[0]?.message);
  return letter.html ?? "";
}

const formats = {
  time: new Intl.DateTimeFormat("en-GB", { hour: "numeric", minute: "numeric", timeZone: "Europe/London" }),
  date: new Intl.DateTimeFormat("en-GB", { dateStyle: "long", timeZone: "Europe/London" }),
  money: new Intl.NumberFormat("en-GB", { style: "currency", currency: "EUR" }),
};
Handlebars.registerHelper("time", (value: string) => formats.time.format(new Date(value)));
Handlebars.registerHelper("date", (value: string) => formats.date.format(new Date(value)));
Handlebars.registerHelper("money", (value: { amount: number }) => formats.money.format(value.amount));
const compiled = Handlebars.compile(template);
compiled({ ...context });

function theirs(): string {
  return marked.parse(compiled({ ...context, refund: false }), { async: false });
}

function perSecond(work: () => string): number {
  const until = performance.now() + 1500;
  let count = 0;
  while (performance.now() < until) {
    work();
    count += 1;
  }
  return count / 1.5;
}

/** Letters a second, each way, in turns within one run. */
export function benchCompose(): object {
  perSecond(ours);
  perSecond(theirs);
  const rounds = [1, 2, 3].map(() => ({ ours: perSecond(ours), theirs: perSecond(theirs) }));
  const median = (values: number[]) => Math.round([...values].sort((a, b) => a - b)[1] ?? 0);
  const [composed, templated] = [
    median(rounds.map((round) => round.ours)),
    median(rounds.map((round) => round.theirs)),
  ];
  return {
    bench: "compose",
    lettersPerSecond: composed,
    handlebarsAndMarkedPerSecond: templated,
    ratio: Number((composed / templated).toFixed(2)),
  };
}
