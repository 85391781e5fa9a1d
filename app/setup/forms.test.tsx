import { afterEach, describe, expect, test } from "@jest/globals";
import { ferryDetails } from "../../demo/details";
import { act, cleanup, screen, waitFor, within } from "@testing-library/react";
import type { Editor } from "@tiptap/core";
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
} as unknown as Context;
const button = (name: string) => screen.getByRole("button", { name });

describe("a signature", () => {
  const own = (words: string | null) => (
    <SignatureForm
      team={null}
      doc={words === null ? null : readMarkdown(words).doc}
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
    header: readMarkdown("Harbour office").doc,
    footer: null,
    accent: "#7d5a00",
    textColour: "#111111",
    background: "#ffffff",
    logo: { id: "4", name: "logo.png", contentType: "image/png", size: 90, alt: "A ship" },
  };
  const form = (
    <PaperForm stationery={{ team: 3, teamName: "Office", paper }} tokens={tokens} context={context} />
  );

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
    <FactPage {...open} fact={{ ...open.fact, ...changes }} uses={[used("A dog costs €7.50.")]} mayDescribe />
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
      body: { value: { amount: "9", currency: "EUR" }, from: null },
    });
  });

  test("is planned for a day, and stays until then", async () => {
    const { hand, asked } = showAtDesk(page(), { [preview]: () => ({ uses: [] }) });
    const value = await screen.findByLabelText("Value");
    await hand.clear(value);
    await hand.type(value, "9");
    await hand.type(await screen.findByRole("textbox", { name: "Holds from" }), "1.3.2027");
    await hand.click(button("Plan it"));
    expect(await screen.findByText("It holds from 2027-03-01.")).toBeVisible();
    expect(asked.at(-1)?.body).toEqual({ value: { amount: "9", currency: "EUR" }, from: "2027-03-01" });
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

  test("that another role changes only says who does", async () => {
    showAtDesk(page({ mayChange: false }));
    expect(await screen.findByText("A curator changes it.")).toBeVisible();
    expect(screen.queryByRole("button", { name: "Change it now" })).not.toBeInTheDocument();
  });
});
