import { expect, test } from "@jest/globals";
import { emptyDocument } from "../document/schema";
import { keptSignatureSchema, signatureSchema, stationerySchema } from "./papers";

const paper = {
  team: 1,
  name: " Harbour office ",
  header: null,
  footer: emptyDocument(),
  accent: "#0d5a45",
  textColour: "#17211D",
  background: "#ffffff",
  logo: "12",
  logoAlt: "",
};
const problem = (changes: object) => stationerySchema.safeParse({ ...paper, ...changes }).error?.issues[0];

test("a stationery is taken without the spaces around its name", () => {
  expect(stationerySchema.parse(paper)).toEqual({ ...paper, name: "Harbour office", texts: {} });
});

test.each<[object, string, string]>([
  [{ name: " " }, "name", "Give it a name"],
  [{ accent: "green" }, "accent", "A colour is written as in #0d5a45"],
  [{ logo: "99999999999" }, "logo", "Not the id of a stored file"],
  [{ logo: "../1" }, "logo", "Not the id of a stored file"],
  [{ team: 0 }, "team", "Choose one of the list"],
  [{ header: { type: "doc", content: [{ type: "script" }] } }, "header", "Unknown kind of node “script”"],
  [{ logoAlt: "x".repeat(301) }, "logoAlt", "At most 300 characters"],
])("%j is refused at its field", (changes, field, message) => {
  expect(problem(changes)).toMatchObject({ message });
  expect(problem(changes)?.path[0]).toBe(field);
});

test("what nobody knows is refused", () => {
  expect(problem({ margin: 3 })).toMatchObject({ code: "unrecognized_keys" });
});

test("a signature has no blanks, and may be none", () => {
  const blank = { type: "blank", attrs: { name: "name", fn: null, options: {} } };
  const document = { type: "doc", content: [{ type: "paragraph", content: [blank] }] };
  expect(signatureSchema.safeParse({ document }).error?.issues).toMatchObject([
    { path: ["document"], message: "A signature has no blanks: nobody is asked for them" },
  ]);
  expect(keptSignatureSchema.parse({ team: null, document: null })).toEqual({
    team: null,
    language: null,
    document: null,
  });
  expect(keptSignatureSchema.safeParse({ team: null, document: null, language: "no language" }).success).toBe(
    false,
  );
  expect(keptSignatureSchema.safeParse({ team: "1", document: null }).success).toBe(false);
});
