import { afterEach, describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import type { Editor } from "@tiptap/core";
import type { Doc } from "#core/document/types";
import { writtenIn } from "#core/language/written";
import type { Writer } from "#server/house/writers";
import { readMarkdown } from "#core/formats/markdown";
import { catalogue } from "#core/tokens/catalogue";
import type { Context } from "#core/tokens/context";
import type { OpenFact } from "#server/house/facts";
import { showAtDesk } from "../testing/desk";
import { FactPage } from "./fact-page";
import { ownTokensOnly } from "./own-words";
import { PaperForm } from "./paper-form";
import { SignatureForm } from "./signature-form";

afterEach(cleanup);

const tokens = ownTokensOnly(catalogue({ details: ferryDetails }));
const context = {
  now: "2026-11-26T10:00:00Z",
  time_zone: "Europe/Berlin",
  locale: null,
  case: {},
  customer: {},
  organisation: {},
  booking: {},
  agent: { name: "Bram Osei", first_name: "Bram", email: "bram@example.com" },
  house: {},
  written: {},
} as unknown as Context;
const button = (name: string) => screen.getByRole("button", { name });

const bram = { id: 2, role: "agent" as const };
const writer: Writer = { id: 2, name: "Bram Osei", teams: [3], lacks: ["phone"], signs: true };

describe("a signature", () => {
  const own = (words: string | null, others: Record<string, Doc> = {}, languages = ["en"]) => (
    <SignatureForm
      team={null}
      signature={words === null ? null : { language: "en", text: readMarkdown(words).doc, others }}
      languages={languages}
      writers={[writer]}
      viewer={bram}
      tokens={tokens}
      context={context}
      label="Your signature"
    />
  );
  const words = () => screen.findByRole("textbox", { name: "Your signature" });
  const write = async (text: string) => {
    const { editor } = (await words()) as HTMLElement & { editor: Editor };
    act(() => void editor.commands.insertContentAt(editor.state.doc.content.size, `<p>${text}</p>`));
  };

  test("is shown as it reads, and kept once it was changed", async () => {
    const { hand, asked } = showAtDesk(own("{$agent.name}"));
    await words();
    expect(screen.getByRole("group", { name: "Your signature, as it reads" })).toHaveTextContent("Bram Osei");
    expect(button("Save")).toBeDisabled();
    await write("Crossings");
    expect(screen.getByText("not saved yet; empty means none")).toBeVisible();
    await hand.click(button("Save"));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({ to: "/setup/keep-signature", body: { team: null } });
    expect(JSON.stringify(asked[0]?.body)).toContain("Crossings");
    expect(await screen.findByText("Saved.")).toBeVisible();
    expect(button("Save")).toBeDisabled();
  });

  test("says before it is kept whose letters change, and what they lack", async () => {
    showAtDesk(own("{$agent.name}"));
    await write("Crossings");
    const note = screen.getByRole("note", { name: "Whose letters change" });
    expect(note).toHaveTextContent("Your letters change from now on.");
    expect(note).not.toHaveTextContent("phone");
    cleanup();
    showAtDesk(own("{$agent.name}, {$agent.phone}"));
    await write("Crossings");
    expect(screen.getByRole("note", { name: "Whose letters change" })).toHaveTextContent(
      "You have no phone number. Fill in yours",
    );
    expect(screen.getByRole("link", { name: "Fill in yours" })).toHaveAttribute("href", "/account");
  });

  test("has a text for each language of the house; one that lacks begins as the first reads", async () => {
    const others = { de: readMarkdown("Viele Grüße").doc };
    const { hand, asked } = showAtDesk(own("Kind regards", others, ["en", "de", "fr"]));
    await words();
    await hand.click(screen.getByRole("tab", { name: "German" }));
    expect(await screen.findByRole("textbox", { name: "Your signature, German" })).toHaveTextContent(
      "Viele Grüße",
    );
    await hand.click(screen.getByRole("tab", { name: "French none yet" }));
    expect(await screen.findByRole("textbox", { name: "Your signature, French" })).toHaveTextContent(
      "Kind regards",
    );
    expect(screen.getByText(/There is none in French: letters in it carry the one in English/)).toBeVisible();
    const panel = screen.getByRole("tabpanel", { name: "French none yet" });
    await hand.click(within(panel).getByRole("button", { name: "Save" }));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({ to: "/setup/keep-signature", body: { team: null, language: "fr" } });
  });

  test("that the server refuses stays as it was typed, with the reason", async () => {
    const { hand } = showAtDesk(own(null), {
      "/setup/keep-signature": () => ({ problem: "There is no such team", status: 404 }),
    });
    await write("Crossings");
    await hand.click(button("Save"));
    expect(await screen.findByRole("alert")).toHaveTextContent("There is no such team");
    expect(await words()).toHaveTextContent("Crossings");
    expect(button("Save")).toBeEnabled();
  });
});

describe("a stationery", () => {
  const paper = {
    name: "Harbour office",
    header: writtenIn("en", readMarkdown("Harbour office, {$agent.title}").doc),
    footer: null,
    accent: "#7d5a00",
    textColour: "#111111",
    background: "#ffffff",
    logo: { id: "4", name: "logo.png", contentType: "image/png", size: 90, alt: "A ship" },
  };
  const lead = { id: 9, role: "lead" as const };
  const writers: Writer[] = [writer, { ...writer, id: 4, name: "Ida Roth", lacks: ["title"] }];
  const form = (
    <PaperForm
      stationery={{ team: 3, teamName: "Office", names: writtenIn("en", "Office"), paper }}
      languages={["en", "de"]}
      writers={writers}
      viewer={lead}
      tokens={tokens}
      context={context}
    />
  );

  test("tells the contrast of its colours on paper and in the dark", async () => {
    showAtDesk(form);
    const colour = await screen.findByLabelText("Words");
    const row = () => screen.getByRole("row", { name: /^Words/ });
    expect(row()).toHaveTextContent(/Words18\.8, enough/);
    fireEvent.change(colour, { target: { value: "#bbbbbb" } });
    await waitFor(() => expect(row()).toHaveTextContent(/1\.9, 4\.5 is needed/));
  });

  test("says before it is kept whose letters change, and who lacks what it prints", async () => {
    const { hand } = showAtDesk(form);
    await hand.type(await screen.findByRole("textbox", { name: "What the logo shows" }), "!");
    const note = screen.getByRole("note", { name: "Whose letters change" });
    expect(note).toHaveTextContent("Letters of 2 people change from now on: Bram Osei and Ida Roth.");
    expect(note).toHaveTextContent("Ida Roth has no title. Fill in theirs");
    expect(within(note).getByRole("link")).toHaveAttribute("href", "/setup/people/4");
  });

  test("is written in another language after the first", async () => {
    const { hand, asked } = showAtDesk(form);
    await hand.click(await screen.findByRole("tab", { name: "German none yet" }));
    expect(screen.getByText("Letters in German carry these in English.")).toBeVisible();
    await hand.click(button("Write them in German"));
    expect(await screen.findByRole("textbox", { name: "Header, German" })).toHaveTextContent(
      "Harbour office",
    );
    await hand.click(button("Save"));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]?.body).toMatchObject({ texts: { de: { footer: null } } });
  });

  test("is kept as it stands, whoever changed only its picture’s words", async () => {
    const { hand, asked } = showAtDesk(form);
    const words = await screen.findByRole("textbox", { name: "What the logo shows" });
    await hand.clear(words);
    await hand.type(words, "A ship at the quay");
    await hand.click(button("Save"));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({
      to: "/setup/keep-stationery",
      body: { team: 3, name: "Harbour office", accent: "#7d5a00", logo: "4", logoAlt: "A ship at the quay" },
    });
  });

  test("shows a letter on it, as plain text too, and does without a picture", async () => {
    const { hand, asked } = showAtDesk(form);
    expect(await screen.findByTitle("A letter on this stationery")).toBeVisible();
    await hand.click(screen.getByRole("checkbox", { name: "as plain text" }));
    expect(screen.getByText(/all is well again/)).toBeVisible();
    await hand.click(button("no logo"));
    expect(screen.getByLabelText("a logo")).toBeInTheDocument();
    await hand.click(button("Save"));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ body: { logo: null } }));
  });

  test("says beside the field what is wrong, and sends nothing", async () => {
    const { hand, asked } = showAtDesk(form);
    const words = await screen.findByRole("textbox", { name: "What the logo shows" });
    await hand.clear(words);
    await hand.click(words);
    await hand.paste("x".repeat(301));
    await hand.click(button("Save"));
    expect(await screen.findByRole("alert")).toHaveTextContent("At most 300 characters");
    expect(words).toHaveFocus();
    expect(asked).toEqual([]);
  });
});

describe("a house fact", () => {
  const open: OpenFact = {
    fact: {
      key: "dog_fee",
      label: "fare for a dog",
      type: "money",
      changedBy: "curator",
      mayChange: true,
      value: { amount: 7.5, currency: "EUR" },
      language: null,
      texts: {},
      next: null,
      uses: 1,
      papers: 0,
    },
    values: [],
  };
  const used = (words: string) => ({
    key: "dogs",
    title: "Dogs aboard",
    language: "en",
    words: [{ kind: "same" as const, text: words }],
  });
  const page = (changes: Partial<OpenFact["fact"]> = {}) => (
    <FactPage
      {...open}
      fact={{ ...open.fact, ...changes }}
      uses={[used("A dog costs €7.50.")]}
      languages={["en", "de", "fr"]}
      mayDescribe
    />
  );
  const preview = "/setup/facts/dog_fee/preview";

  test("shows how replies will read with another value, and is changed", async () => {
    const { hand, asked } = showAtDesk(page(), { [preview]: () => ({ uses: [used("A dog costs €9.00.")] }) });
    const value = await screen.findByLabelText("Value");
    expect(button("Change it now")).toBeDisabled();
    await hand.clear(value);
    await hand.type(value, "9");
    const where = screen.getByRole("region", { name: "Where it is used" });
    expect(await within(where).findByText("A dog costs €9.00.")).toBeVisible();
    await hand.click(button("Change it now"));
    expect(await screen.findByText("It holds from now.")).toBeVisible();
    expect(asked.at(-1)).toEqual({
      to: "/setup/facts/dog_fee/set",
      body: { value: { amount: "9", currency: "EUR" }, texts: {}, from: null },
    });
  });

  test("is planned for a day, and stays until then", async () => {
    const { hand, asked } = showAtDesk(page(), { [preview]: () => ({ uses: [] }) });
    const value = await screen.findByLabelText("Value");
    await hand.clear(value);
    await hand.type(value, "9");
    await hand.type(await screen.findByRole("textbox", { name: "Holds from" }), "1.3.2027");
    await hand.click(button("Plan it"));
    expect(await screen.findByText("It holds from 1 March 2027.")).toBeVisible();
    expect(asked.at(-1)?.body).toEqual({
      value: { amount: "9", currency: "EUR" },
      texts: {},
      from: "2027-03-01",
    });
    expect(value).toHaveValue(7.5);
  });

  test("that cannot be such a value says so, and is not sent", async () => {
    const { hand, asked } = showAtDesk(page(), {
      [preview]: () => ({ problem: "An amount, as in 7.50", status: 400 }),
    });
    await hand.clear(await screen.findByLabelText("Value"));
    expect(await screen.findByRole("alert")).toHaveTextContent("An amount, as in 7.50");
    expect(button("Change it now")).toBeDisabled();
    expect(asked.map(({ to }) => to)).toEqual([preview]);
  });

  test("of words has a text for each language, and says which letters lack one", async () => {
    const words = page({
      type: "text",
      value: "from seven",
      language: "en",
      texts: { de: "ab sieben" },
    });
    const { hand, asked } = showAtDesk(words, { [preview]: () => ({ uses: [] }) });
    expect(await screen.findByLabelText("German")).toHaveValue("ab sieben");
    expect(
      screen.getByText("Letters in French print it as in English, and the second look says so."),
    ).toBeVisible();
    await hand.type(screen.getByLabelText("French"), "dès sept heures");
    await hand.click(button("Change it now"));
    // What it would read as is asked for beside it, whenever that is due.
    const set = () => asked.find(({ to }) => to === "/setup/facts/dog_fee/set");
    await waitFor(() => expect(set()).toBeDefined());
    expect(set()?.body).toEqual({
      value: "from seven",
      texts: { de: "ab sieben", fr: "dès sept heures" },
      from: null,
    });
    await hand.click(screen.getByRole("checkbox", { name: /Reads the same in every language/ }));
    expect(asked.at(-1)).toMatchObject({ to: "/setup/facts/dog_fee/describe", body: { language: null } });
  });

  test("that another role changes only says who does", async () => {
    showAtDesk(page({ mayChange: false }));
    expect(await screen.findByText("A curator changes it.")).toBeVisible();
    expect(screen.queryByRole("button", { name: "Change it now" })).not.toBeInTheDocument();
  });
});
