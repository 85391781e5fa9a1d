import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { useEffect, useState } from "react";
import { readMarkdown } from "#core/formats/markdown";
import type { Content, ContentVariant } from "#server/replies/content";
import { show } from "../../testing/show";
import { Tabs } from "../../ui/tabs";
import { reversedKeys } from "../../testing/reversed-keys";
import { isStale, Variants } from "./variants";

afterEach(cleanup);

const doc = (words: string) => readMarkdown(words).doc;
const english: ContentVariant = {
  language: "en",
  title: null,
  subject: "Dogs",
  document: doc("Dogs are *welcome*."),
  original: null,
};
const german = (original: ContentVariant["original"]): ContentVariant => ({
  language: "de",
  title: "Hunde",
  subject: "Hunde",
  document: doc("Hunde sind willkommen."),
  original,
});
const content = (...variants: ContentVariant[]): Content => ({
  title: "Dogs aboard",
  useTemplateSubject: false,
  blanks: {},
  passages: {},
  variants,
  files: [],
  pictures: [],
});

const held = jest.fn<(content: Content) => void>();
const now = () => held.mock.lastCall?.[0].variants;
function Page({ first }: { first: Content }) {
  const [content, setContent] = useState(first);
  const [language, setLanguage] = useState("en");
  useEffect(() => held(content), [content]);
  return (
    <Tabs value={language} onChange={setLanguage}>
      <Variants content={content} onChoose={setLanguage} change={(how) => setContent(how)} known={["nl"]} />
      <output aria-label="Chosen">{language}</output>
    </Tabs>
  );
}
const chosen = () => screen.getByLabelText("Chosen").textContent;

describe("the languages of a reply", () => {
  test("are tabs; the first is the fallback, and a translation of other words is stale", () => {
    const { subject, document } = english;
    show(<Page first={content(english, german({ subject, document: doc("Dogs are allowed.") }))} />);
    expect(screen.getAllByRole("tab").map((tab) => tab.textContent)).toEqual([
      "English fallback",
      "German stale",
    ]);
    cleanup();
    show(<Page first={content(english, german({ subject, document }))} />);
    expect(screen.getByRole("tab", { name: "German" })).toBeVisible();
  });

  test("are gone along with the arrow keys", async () => {
    const hand = show(<Page first={content(english, german(null))} />);
    screen.getByRole("tab", { selected: true }).focus();
    await hand.keyboard("{ArrowRight}");
    expect(chosen()).toBe("de");
  });

  test("one more begins with the original’s words, and follows them", async () => {
    const hand = show(<Page first={content(english)} />);
    await hand.click(screen.getByRole("button", { name: "add a language" }));
    const field = screen.getByRole("combobox", { name: "Language to add" });
    expect(field).toHaveFocus();
    expect([...document.querySelectorAll("option")].map((one) => one.value)).not.toContain("en");
    await hand.type(field, "pt-BR{Enter}");
    expect(chosen()).toBe("pt-BR");
    const { subject, document: words } = english;
    expect(now()?.[1]).toEqual({
      language: "pt-BR",
      title: null,
      subject,
      document: words,
      original: { subject, document: words },
    });
    expect(screen.queryByRole("combobox")).not.toBeInTheDocument();
  });

  test("what is no tag says how one is written; Escape leaves it", async () => {
    const hand = show(<Page first={content(english)} />);
    await hand.click(screen.getByRole("button", { name: "add a language" }));
    await hand.type(screen.getByRole("combobox", { name: "Language to add" }), "German{Enter}");
    expect(screen.getByText("Write the language as a short code, such as de or pt-BR")).toBeVisible();
    expect(now()).toHaveLength(1);
    await hand.keyboard("{Escape}");
    expect(screen.getByRole("button", { name: "add a language" })).toBeVisible();
  });

  test("one that is there already is shown", async () => {
    const hand = show(<Page first={content(english, german(null))} />);
    await hand.click(screen.getByRole("button", { name: "add a language" }));
    await hand.type(screen.getByRole("combobox", { name: "Language to add" }), "de{Enter}");
    expect(chosen()).toBe("de");
    expect(now()).toHaveLength(2);
  });
});

test("a translation follows its original in whatever order the words’ keys were kept", () => {
  const kept = reversedKeys(english.document);
  const follows = german({ subject: "Dogs", document: kept });
  expect(isStale(content(english, follows), follows)).toBe(false);
  expect(isStale(content({ ...english, subject: "Cats" }, follows), follows)).toBe(true);
});
