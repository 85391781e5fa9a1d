import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import DateEntry from "./date-entry";
import { dayText, readDay } from "./day";

afterEach(cleanup);

function Review({ min, max }: { min?: string; max?: string }) {
  const [day, setDay] = useState("");
  return (
    <>
      <DateEntry label="Review by" value={day} onChange={setDay} min={min} max={max} />
      <output aria-label="kept">{day}</output>
    </>
  );
}

const field = () => screen.getByRole("textbox", { name: "Review by" });
const kept = () => screen.getByRole("status", { name: "kept" }).textContent;

describe("a day", () => {
  test("is read as people write it, and kept in one form", () => {
    for (const typed of [
      "2027-03-01",
      "1.3.2027",
      "01.03.2027",
      "1/3/2027",
      "1 Mar 2027",
      " 1 March 2027 ",
    ]) {
      const day = readDay(typed);
      expect([typed, day && dayText(day)]).toEqual([typed, "2027-03-01"]);
    }
    for (const typed of ["", "soon", "2027-02-30", "31.4.2027", "1.3.27", "2027-3", "13/13/2027"])
      expect([typed, readDay(typed)]).toEqual([typed, null]);
  });

  test("is typed; what is none is said, stays, and is not kept", async () => {
    const user = userEvent.setup();
    render(<Review />);
    await user.type(field(), "30.2.2027");
    await user.tab();
    expect(screen.getByRole("alert").textContent).toContain("no day");
    expect(field().getAttribute("aria-invalid")).toBe("true");
    expect((field() as HTMLInputElement).value).toBe("30.2.2027");
    expect(kept()).not.toBe("30.2.2027");
    await user.clear(field());
    expect(kept()).toBe("");
    await user.type(field(), "1.3.2027");
    await user.tab();
    expect(kept()).toBe("2027-03-01");
    expect((field() as HTMLInputElement).value).toBe("2027-03-01");
  });

  test("lies within its bounds", async () => {
    const user = userEvent.setup();
    render(<Review min="2027-03-10" max="2027-03-20" />);
    await user.type(field(), "2027-03-09");
    expect(screen.getByRole("alert").textContent).toBe("Not before 2027-03-10");
    await user.clear(field());
    await user.type(field(), "2027-03-21");
    expect(screen.getByRole("alert").textContent).toBe("Not after 2027-03-20");
  });

  test("is chosen from a month by keyboard alone", async () => {
    const user = userEvent.setup();
    render(<Review />);
    await user.type(field(), "2027-03-01");
    await user.tab();
    expect(document.activeElement).toBe(screen.getByRole("button", { name: "Choose review by" }));
    await user.keyboard("{Enter}");
    const chosen = await screen.findByRole("button", { name: /^Monday, 1 March 2027/ });
    expect(document.activeElement).toBe(chosen);
    await user.keyboard("{ArrowDown}{ArrowRight}{Enter}");
    expect(kept()).toBe("2027-03-09");
    expect(screen.queryByRole("dialog")).toBeNull();
  });
});
