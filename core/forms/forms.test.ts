import { describe, expect, test } from "@jest/globals";
import { safeParse } from "zod/mini";
import { addressOf } from "./outside";
import { houseSchema } from "./house";
import { ownDetailsSchema, passwordField, teamSchema } from "./people";
import { filingSchema, newReplySchema, shelfSchema, type FilingInput } from "./library";

/** What a schema says of an input: where, and what. */
function said(schema: Parameters<typeof safeParse>[0], input: unknown): [string, string][] {
  const read = safeParse(schema, input);
  return read.success ? [] : read.error.issues.map(({ path, message }) => [path.join("."), message]);
}

const filing: FilingInput = {
  shelf: "on_board",
  note: null,
  part: "answer",
  tags: ["bicycle"],
  channels: ["email"],
  topics: [],
  withBooking: false,
  owner: null,
  reviewBy: null,
  seasonFrom: null,
  seasonUntil: null,
};

describe("what is wrong with a form is said in words, at its field", () => {
  test("filing", () => {
    expect(said(filingSchema, filing)).toEqual([]);
    expect(
      said(filingSchema, {
        ...filing,
        shelf: "",
        note: "x".repeat(5001),
        channels: [],
        tags: ["  "],
        owner: 0,
        reviewBy: "2027-02-30",
        seasonFrom: "0000-01-01",
      }),
    ).toEqual([
      ["shelf", "Choose a shelf"],
      ["note", "At most 5,000 characters"],
      ["tags.0", "A tag is a word or two"],
      ["channels", "Choose a channel at least"],
      ["owner", "Choose one of the list"],
      ["reviewBy", "A day, as in 2027-03-01"],
      ["seasonFrom", "A day from 1900 to 2199"],
    ]);
    expect(said(filingSchema, { ...filing, seasonFrom: "2027-03-02", seasonUntil: "2027-03-01" })).toEqual([
      ["seasonUntil", "The season ends before it begins"],
    ]);
    expect(said(filingSchema, { ...filing, seasonFrom: "2027-03-01", seasonUntil: "2027-03-01" })).toEqual(
      [],
    );
  });

  test("a shelf for teams names them; a mark is a letter or two, however it is coded", () => {
    const shelf = { name: "On board", mark: "🚢B", audience: "everyone", teams: [] };
    expect(said(shelfSchema, shelf)).toEqual([]);
    expect(said(shelfSchema, { ...shelf, audience: "teams" })).toEqual([
      ["teams", "Say for which teams the shelf is"],
    ]);
    expect(said(shelfSchema, { ...shelf, mark: "ABC" })).toEqual([["mark", "A letter or two"]]);
  });

  test("a title of blanks is none", () => {
    expect(said(newReplySchema, { shelf: "x", title: "   " })).toEqual([["title", "Give it a title"]]);
  });

  test("what is not written of a colleague is nothing", () => {
    const person = { name: "Bram Test", firstName: "Bram", timeZone: "Europe/Paris" };
    const read = safeParse(ownDetailsSchema, { ...person, title: " Purser ", department: " ", phone: null });
    expect(read.data).toEqual({ ...person, title: "Purser", department: null, phone: null });
  });

  test("a time zone is one that this machine knows", () => {
    const person = { name: "Bram", firstName: "Bram", title: null, department: null, phone: null };
    expect(said(ownDetailsSchema, { ...person, timeZone: "Sollen/Sound" })).toEqual([
      ["timeZone", "Choose a time zone of the list"],
    ]);
  });

  test("a password is long, and a team answers within minutes and from an address", () => {
    expect(safeParse(passwordField, "kittiwake").success).toBe(false);
    expect(safeParse(passwordField, "three kittiwakes").success).toBe(true);
    expect(
      safeParse(teamSchema, {
        name: "Desk",
        names: { de: " Schalter ", fr: " " },
        mailbox: " Desk@Example.com ",
        answerWithin: 60,
      }).data,
    ).toEqual({
      name: "Desk",
      names: { de: "Schalter" },
      mailbox: "desk@example.com",
      answerWithin: 60,
    });
    expect(said(teamSchema, { name: "Desk", mailbox: "desk", answerWithin: 1 })).toEqual([
      ["mailbox", "Write an email address, as in maren@example.com"],
      ["answerWithin", "At least 5 minutes"],
    ]);
  });

  test("a house has letters before its numbers, and languages by their tags", () => {
    const house = {
      name: "Sollen",
      casePrefix: " sf ",
      timeZone: "UTC",
      languages: ["en", "pt-BR"],
      region: "GB",
    };
    expect(safeParse(houseSchema, house).data).toMatchObject({ casePrefix: "SF" });
    expect(said(houseSchema, { ...house, casePrefix: "S1", languages: [], region: "Gb" })).toEqual([
      ["casePrefix", "One to six letters, as SF in SF-20417"],
      ["languages", "Choose a language at least"],
      ["region", "Choose a country of the list"],
    ]);
    expect(said(houseSchema, { ...house, languages: ["english please"] })).toHaveLength(1);
  });

  test("an invented customer has an address of a domain that nobody has", () => {
    expect(addressOf("  Søren Åkerblöm-Ñandú! ")).toMatch(/^s.*ren\.akerblom\.nandu@example\.org$/);
    expect(addressOf("…")).toBe("");
    expect(addressOf("x".repeat(200))).toBe(`${"x".repeat(64)}@example.org`);
  });
});
