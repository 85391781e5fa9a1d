import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import fc from "fast-check";
import * as z from "zod/mini";
import { Sentence } from "./sentence";
import { wordsOf } from "#core/words/words-of";

afterEach(cleanup);

const t = wordsOf("a test", {
  plain: "All is well.",
  named: "Hello {{name}}, {{name}}!",
  replies_one: "{{count, number}} reply of {{who}}",
  replies_other: "{{count, number}} replies of {{who}}",
  linked: "You have <0>no {{what}}</0>. <1>Add it</1>",
});

describe("the words of a screen", () => {
  test("are said by name, with their values", () => {
    expect(t("plain")).toBe("All is well.");
    expect(t("named", { name: "Ana" })).toBe("Hello Ana, Ana!");
  });

  test("take the plural of their language", () => {
    expect(t("replies", { count: 1, who: "Ana" })).toBe("1 reply of Ana");
    expect(t("replies", { count: 0, who: "Ana" })).toBe("0 replies of Ana");
    expect(t("replies", { count: 10_064, who: "Ana" })).toBe("10,064 replies of Ana");
  });

  test("say a value as it is: nothing in it is read again", () => {
    const name = '{{name}} $t(plain) <b>&amp;"';
    expect(t("named", { name })).toBe(`Hello ${name}, ${name}!`);
  });

  test("say any value, each time anew", () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string({ unit: "binary" }), fc.constantFrom("\ue000name\ue000", "{{name}}", "$&")),
        (name) => expect(t("named", { name })).toBe(`Hello ${name}, ${name}!`),
      ),
    );
  });

  test("are said for a check only once it fails", () => {
    const schema = z.string().check(z.minLength(3, t.error("named", { name: "Ana" })));
    expect(schema.safeParse("ab").error?.issues[0]?.message).toBe("Hello Ana, Ana!");
    expect(t.error("plain").error()).toBe("All is well.");
  });

  test("may be links and such in part, whatever stands in their values", () => {
    render(
      <p>
        <Sentence
          of={t}
          name="linked"
          values={{ what: "<1>phone</1> & {{what}}" }}
          parts={[<em key="0" />, <button key="1" type="button" title="To your page" />]}
        />
      </p>,
    );
    expect(screen.getByRole("paragraph")).toHaveTextContent("You have no <1>phone</1> & {{what}}. Add it");
    expect(screen.getAllByRole("button")).toHaveLength(1);
    expect(screen.getByRole("button", { name: "Add it" })).toHaveAttribute("title", "To your page");
  });
});
