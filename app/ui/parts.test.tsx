import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { show } from "../testing/show";
import { Checkbox } from "./checkbox";
import { Disclosure } from "./disclosure";
import { Picker } from "./picker";
import { Popover } from "./popover";
import { RadioGroup } from "./radio-group";
import { Select, type Option } from "./select";
import { TabList, TabPanel, Tabs } from "./tabs";

afterEach(cleanup);

const harbours: Option[] = [
  ["", "any harbour"],
  ["osmer", "Osmer Quay"],
  ["tarn", "Tarn Head"],
  ["pellick", "Pellick"],
];

function Harbours({ onChange }: { onChange?: (value: string) => void }) {
  const [value, setValue] = useState("");
  return (
    <form aria-label="form">
      <Select
        label="Harbour"
        name="harbour"
        value={value}
        options={harbours}
        onChange={(next) => {
          setValue(next);
          onChange?.(next);
        }}
      />
    </form>
  );
}

describe("one of few", () => {
  test("is opened by key, found by typing ahead, chosen by Enter, and sent with its form", async () => {
    const changed = jest.fn<(value: string) => void>();
    const user = show(<Harbours onChange={changed} />);
    const list = screen.getByRole("combobox", { name: "Harbour" });
    expect(list.textContent).toContain("any harbour");
    await user.tab();
    expect(document.activeElement).toBe(list);
    await user.keyboard("{Enter}");
    await user.keyboard("t");
    expect(document.activeElement?.textContent).toBe("Tarn Head");
    await user.keyboard("{Enter}");
    expect(changed.mock.calls).toEqual([["tarn"]]);
    expect(list.textContent).toContain("Tarn Head");
    expect(document.activeElement).toBe(list);
    expect(new FormData(screen.getByRole<HTMLFormElement>("form")).get("harbour")).toBe("tarn");
  });

  test("can be nothing again, and Escape leaves it as it was", async () => {
    const changed = jest.fn<(value: string) => void>();
    const user = show(<Harbours onChange={changed} />);
    await user.tab();
    await user.keyboard("{Enter}{ArrowDown}{Escape}");
    expect(changed).not.toHaveBeenCalled();
    await user.keyboard("{Enter}{ArrowDown}{Enter}");
    await user.keyboard("{Enter}{Home}{Enter}");
    expect(changed.mock.calls).toEqual([["osmer"], [""]]);
  });

  test("a value that is not offered shows what stands for it", () => {
    show(
      <Select
        label="Harbour"
        value="gone"
        placeholder="gone (not offered)"
        options={harbours}
        onChange={() => undefined}
      />,
    );
    expect(screen.getByRole("combobox").textContent).toContain("gone (not offered)");
  });
});

test("a box is ticked by key, and one that is half ticked says so", async () => {
  const changed = jest.fn<(value: boolean) => void>();
  const user = show(
    <>
      <label>
        <Checkbox checked={false} onChange={changed} /> capitals do not matter
      </label>
      <Checkbox label="all of them" checked="mixed" onChange={changed} />
    </>,
  );
  await user.tab();
  expect(document.activeElement).toBe(screen.getByRole("checkbox", { name: "capitals do not matter" }));
  await user.keyboard(" ");
  await user.click(screen.getByText("capitals do not matter"));
  expect(changed.mock.calls).toEqual([[true], [true]]);
  expect(screen.getByRole("checkbox", { name: "all of them" }).getAttribute("aria-checked")).toBe("mixed");
});

test("one of few in sight: the arrow keys go along, past what cannot be chosen", async () => {
  const changed = jest.fn<(value: string) => void>();
  const options = [
    { value: "a", words: "ana@example.org" },
    { value: "b", words: "desk@example.com", disabled: true },
    { value: "c", words: "else@example.net" },
  ];
  const user = show(<RadioGroup label="Address" value="a" options={options} onChange={changed} />);
  await user.tab();
  await user.keyboard("{ArrowDown>}");
  await waitFor(() => expect(changed.mock.calls).toEqual([["c"]]));
  await user.keyboard("{/ArrowDown}");
  await user.click(screen.getByText("desk@example.com"));
  expect(changed).toHaveBeenCalledTimes(1);
});

function Views() {
  const [view, setView] = useState("Try on");
  return (
    <Tabs value={view} onChange={setView}>
      <TabList
        label="Beside the reply"
        tabs={[
          { value: "Try on", words: "Try on" },
          { value: "Files", words: "Files 2" },
        ]}
      />
      <TabPanel value="Try on" kept>
        tried
      </TabPanel>
      <TabPanel value="Files">two files</TabPanel>
    </Tabs>
  );
}

test("tabs are one stop, the arrow keys go along, and each names what it shows", async () => {
  const user = show(<Views />);
  await user.tab();
  await user.keyboard("{ArrowRight}");
  const files = screen.getByRole("tab", { name: "Files 2" });
  expect(files.getAttribute("aria-selected")).toBe("true");
  expect(screen.getByRole("tabpanel", { name: "Files 2" }).textContent).toBe("two files");
  // What is kept is there, unseen.
  expect(screen.getByText("tried").dataset.state).toBe("inactive");
  await user.keyboard("{ArrowRight}");
  const panel = screen.getByRole("tabpanel", { name: "Try on" });
  expect(screen.getByRole("tab", { name: "Try on" }).getAttribute("aria-controls")).toBe(panel.id);
  expect(panel.id).not.toMatch(/\s/);
});

test("a small page over the page is closed by Escape and by a press outside, and the focus goes back", async () => {
  const user = show(
    <>
      <Popover words="more" label="More filters">
        <input aria-label="inside" />
      </Popover>
      <p>outside</p>
    </>,
  );
  const opens = screen.getByRole("button", { name: "More filters" });
  await user.click(opens);
  expect(document.activeElement).toBe(screen.getByRole("textbox", { name: "inside" }));
  await user.keyboard("{Escape}");
  expect(screen.queryByRole("textbox")).toBeNull();
  expect(document.activeElement).toBe(opens);
  await user.keyboard("{Enter}");
  expect(screen.getByRole("dialog", { name: "More filters" })).toBeTruthy();
  await user.click(document.body);
  expect(screen.queryByRole("dialog")).toBeNull();
});

test("what is shown when it is asked for says whether it is", async () => {
  const user = show(<Disclosure words="History">opened on Monday</Disclosure>);
  expect(screen.queryByText("opened on Monday")).toBeNull();
  await user.tab();
  await user.keyboard("{Enter}");
  expect(screen.getByText("opened on Monday")).toBeTruthy();
  expect(screen.getByRole("button", { name: "History" }).getAttribute("aria-expanded")).toBe("true");
});

test("one of many is found by its words or its heading, and taken with Enter", async () => {
  const changed = jest.fn<(value: string) => void>();
  const groups = [
    { heading: "Blanks of this reply", options: [["blank.hours", "hours late"]] as const },
    {
      heading: "Booking",
      options: [
        ["booking.from", "from harbour"],
        ["booking.to", "to harbour"],
      ] as const,
    },
  ];
  const user = show(
    <Picker
      label="What is asked for"
      value="blank.hours"
      words="hours late"
      groups={groups}
      onChange={changed}
    />,
  );
  await user.tab();
  await user.keyboard("{Enter}");
  expect(screen.getAllByRole("option")).toHaveLength(3);
  await user.keyboard("to har");
  await user.keyboard("{Enter}");
  expect(changed.mock.calls).toEqual([["booking.to"]]);
  expect(screen.queryByRole("listbox")).toBeNull();
  await user.keyboard("{Enter}");
  await user.keyboard("blanks of");
  expect(screen.getAllByRole("option").map((one) => one.textContent)).toEqual(["hours late"]);
  await user.keyboard("x");
  expect(screen.queryAllByRole("option")).toEqual([]);
  expect(screen.getByText("Nothing is called like that.")).toBeTruthy();
});
