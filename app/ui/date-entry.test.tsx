import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, render, screen } from "@testing-library/react";
import fc from "fast-check";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import DateEntry from "./date-entry";
import { dayForm, dayText, readDay, writeDay } from "./day";
import { RegionContext } from "./region";
import { sayDay, sayDayShort } from "./say-day";

afterEach(cleanup);

const british = dayForm("en-GB");

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
      const day = readDay(typed, british);
      expect([typed, day && dayText(day)]).toEqual([typed, "2027-03-01"]);
    }
    for (const typed of ["", "soon", "2027-02-30", "31.4.2027", "1.3.27", "2027-3", "13/13/2027"])
      expect([typed, readDay(typed, british)]).toEqual([typed, null]);
  });

  test("is written as the house’s region writes it, and read so first", () => {
    const written = (tag: string) => writeDay("2027-03-01", dayForm(tag));
    expect(written("en-GB")).toBe("01/03/2027");
    expect(written("en-US")).toBe("3/1/2027");
    expect(written("de-AT")).toBe("1.3.2027");
    expect(written("sv-SE")).toBe("2027-03-01");
    expect(written("hu-HU")).toBe("2027. 03. 01.");
    // No region says how English writes a day in figures.
    expect(written("en")).toBe("2027-03-01");
    const read = (typed: string, tag: string) => {
      const day = readDay(typed, dayForm(tag));
      return day && dayText(day);
    };
    expect(read("3/4/2027", "en-GB")).toBe("2027-04-03");
    expect(read("3/4/2027", "en-US")).toBe("2027-03-04");
    expect(read("13/4/2027", "en-US")).toBeNull();
    expect(read("2027-04-03", "en-US")).toBe("2027-04-03");
  });

  test("of whatever region is read back as it was written", () => {
    const day = fc.date({ min: new Date("1900-01-02"), max: new Date("2199-12-30"), noInvalidDate: true });
    const tags = fc.constantFrom(
      "en-GB",
      "en-US",
      "de-DE",
      "fr-CA",
      "ja-JP",
      "ko-KR",
      "fa-IR",
      "ar-EG",
      "nl-NL",
      "hu-HU",
      "bg-BG",
      "en",
    );
    fc.assert(
      fc.property(day, tags, (instant, tag) => {
        const kept = instant.toISOString().slice(0, 10);
        const form = dayForm(tag);
        const read = readDay(writeDay(kept, form), form);
        expect([tag, read && dayText(read)]).toEqual([tag, kept]);
      }),
    );
  });

  test("in a field stands as the region writes it, with an example of that", async () => {
    const user = userEvent.setup();
    render(
      <RegionContext value="en-US">
        <Review />
      </RegionContext>,
    );
    expect((field() as HTMLInputElement).placeholder).toBe("3/1/2027");
    await user.type(field(), "1 March 2027");
    await user.tab();
    expect((field() as HTMLInputElement).value).toBe("3/1/2027");
    expect(kept()).toBe("2027-03-01");
    await user.clear(field());
    await user.type(field(), "13/1/2027");
    expect(screen.getByRole("alert").textContent).toBe("That is no day; write it as in 3/1/2027");
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
    expect((field() as HTMLInputElement).value).toBe("01/03/2027");
  });

  test("lies within its bounds", async () => {
    const user = userEvent.setup();
    render(<Review min="2027-03-10" max="2027-03-20" />);
    await user.type(field(), "2027-03-09");
    expect(screen.getByRole("alert").textContent).toBe("Not before 10/03/2027");
    await user.clear(field());
    await user.type(field(), "2027-03-21");
    expect(screen.getByRole("alert").textContent).toBe("Not after 20/03/2027");
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

test("a day that is kept is said in words, in full or in short", () => {
  expect(sayDay("2027-03-01")).toBe("1 March 2027");
  expect(sayDayShort("2027-12-31")).toBe("31 Dec 2027");
});
