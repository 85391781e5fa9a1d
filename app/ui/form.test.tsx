import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { shelfSchema } from "#core/forms/library";
import type { Outcome } from "./act";
import { FieldProblem, FormProblem, taken, useFormOf } from "./form";
import { ManyPicker } from "./many-picker";

afterEach(cleanup);

/** A form of a shelf’s name and mark, which a server answers with `outcome`. */
function ShelfForm({ onSend, outcome }: { onSend: (input: object) => void; outcome: Outcome<unknown> }) {
  const form = useFormOf(shelfSchema, { name: "", mark: "", audience: "everyone", teams: [] });
  const { errors } = form.formState;
  const send = form.handleSubmit((input) => {
    onSend(input);
    taken(form, outcome);
  });
  return (
    <form noValidate onSubmit={(event) => void send(event)}>
      <input aria-label="Name" {...form.register("name")} />
      <FieldProblem words={errors.name?.message} />
      <input aria-label="Mark" {...form.register("mark")} />
      <FieldProblem words={errors.mark?.message} />
      <button type="submit">Keep</button>
      <FormProblem words={errors.root?.message} />
    </form>
  );
}
const said = () => screen.queryAllByRole("alert").map((one) => one.textContent);

describe("a form", () => {
  test("says beside each field what is wrong, goes to the first, loses nothing, and sends what the schema makes of it", async () => {
    const sent = jest.fn();
    const user = userEvent.setup();
    render(<ShelfForm onSend={sent} outcome={{ ok: true, data: {} }} />);
    await user.type(screen.getByLabelText("Mark"), "ABC");
    await user.click(screen.getByRole("button", { name: "Keep" }));
    expect(said()).toEqual(["Give the shelf a name", "A letter or two"]);
    expect(document.activeElement).toBe(screen.getByLabelText("Name"));
    expect(screen.getByLabelText<HTMLInputElement>("Mark").value).toBe("ABC");
    expect(sent).not.toHaveBeenCalled();
    await user.type(screen.getByLabelText("Name"), "  On board ");
    await user.clear(screen.getByLabelText("Mark"));
    await user.type(screen.getByLabelText("Mark"), "B");
    await user.click(screen.getByRole("button", { name: "Keep" }));
    expect(said()).toEqual([]);
    expect(sent).toHaveBeenCalledWith({ name: "On board", mark: "B", audience: "everyone", teams: [] });
  });

  test("shows what the server refused at the field that it is about, else under the form", async () => {
    for (const [outcome, at] of [
      [{ ok: false, status: 400, problem: "There is a shelf of that name", at: "name" }, "Name"],
      [{ ok: false, status: 409, problem: "Somebody was quicker" }, null],
    ] as const) {
      const user = userEvent.setup();
      render(<ShelfForm onSend={() => undefined} outcome={outcome} />);
      await user.type(screen.getByLabelText("Name"), "On board");
      await user.type(screen.getByLabelText("Mark"), "B");
      await user.click(screen.getByRole("button", { name: "Keep" }));
      expect(said()).toEqual([outcome.problem]);
      if (at) expect(document.activeElement).toBe(screen.getByLabelText(at));
      expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("On board");
      cleanup();
    }
  });
});

function Tags({ takesNew }: { takesNew: boolean }) {
  const [tags, setTags] = useState(["refund"]);
  return (
    <ManyPicker
      label="Tags"
      value={tags}
      options={["bicycle", "refund", "weather"]}
      onChange={setTags}
      placeholder="none"
      open={takesNew}
    />
  );
}

describe("several of many", () => {
  const list = () => screen.getByRole("combobox", { name: /^Tags: / });

  test("are found by typing, put on and taken off with Enter; Escape closes", async () => {
    const user = userEvent.setup();
    render(<Tags takesNew={false} />);
    await user.click(list());
    await user.keyboard("wea{Enter}");
    expect(list().getAttribute("aria-label")).toBe("Tags: refund, weather");
    await user.keyboard("{Control>}a{/Control}refu{Enter}{Escape}");
    expect(list().getAttribute("aria-label")).toBe("Tags: weather");
    expect(screen.queryByRole("listbox")).toBeNull();
    await user.click(list());
    await user.keyboard("ferrets{Enter}");
    expect(list().getAttribute("aria-label")).toBe("Tags: weather");
    expect(screen.getByText("There is none like that.")).toBeTruthy();
  });

  test("take a new one where that is meant, but no second of the same", async () => {
    const user = userEvent.setup();
    render(<Tags takesNew />);
    await user.click(list());
    await user.keyboard("Weather");
    expect(screen.queryByText(/a new one/)).toBeNull();
    await user.keyboard(" vane{Enter}");
    expect(list().getAttribute("aria-label")).toBe("Tags: refund, Weather vane");
  });
});
