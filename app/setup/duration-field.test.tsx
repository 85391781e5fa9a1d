import { afterEach, expect, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import { useState } from "react";
import { showAtDesk } from "../testing/desk";
import { DurationField } from "./duration-field";

afterEach(cleanup);

function Answers({ minutes }: { minutes: number }) {
  const [value, setValue] = useState(minutes);
  return (
    <>
      <DurationField label="Answers within" value={value} onChange={setValue} invalid={false} />
      <output aria-label="minutes">{value}</output>
    </>
  );
}

const amount = () => screen.getByRole("spinbutton", { name: "Answers within" });
const unit = () => screen.getByRole("combobox", { name: "Answers within, unit" });
const minutes = () => screen.getByRole("status", { name: "minutes" }).textContent;

test("a length of time is shown in the largest unit that holds it whole", () => {
  for (const [value, shown, of] of [
    [2880, 2, "days"],
    [1080, 18, "hours"],
    [90, 90, "minutes"],
  ] as const) {
    showAtDesk(<Answers minutes={value} />);
    expect(amount()).toHaveValue(shown);
    expect(unit()).toHaveTextContent(of);
    cleanup();
  }
});

test("it is typed in that unit and kept in minutes; nothing is no length", async () => {
  const { hand } = showAtDesk(<Answers minutes={60} />);
  await hand.clear(amount());
  expect(minutes()).toBe("NaN");
  await hand.type(amount(), "1.5");
  expect(minutes()).toBe("90");
});

test("another unit keeps the number that stands there", async () => {
  const { hand } = showAtDesk(<Answers minutes={120} />);
  unit().focus();
  await hand.keyboard("{Enter}{ArrowUp}{Enter}");
  expect(unit()).toHaveTextContent("days");
  expect(minutes()).toBe(String(2 * 24 * 60));
});
