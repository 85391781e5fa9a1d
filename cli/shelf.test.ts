import { describe, expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { mkdtempSync, writeFileSync, mkdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { run } from "./run";

const folder = mkdtempSync(join(tmpdir(), "shelf-"));
mkdirSync(join(folder, "library/weather/files"), { recursive: true });
writeFileSync(
  join(folder, "library/weather/put-off.md"),
  [
    "---",
    "id: put-off",
    "title: Put off",
    "attachments: [weather/files/form.txt]",
    "blanks:",
    "  hours: { kind: number }",
    "passages:",
    "  car: { when: { value: booking.vehicle, is: present } }",
    "---",
    "Hello {$customer.first_name}, {$blank.hours :integer} hours late. The form is attached. Fee {$house.fee}, lane {$case.lane}.",
    "",
    ":::passage{#car}",
    "Lane 4.",
    ":::",
    "",
  ].join("\n"),
);
writeFileSync(
  join(folder, "library/library.yaml"),
  "house_facts:\n  fee: { label: Fee, type: money, value: { amount: 6, currency: EUR } }\n",
);
writeFileSync(join(folder, "library/weather/files/form.txt"), "a form");
writeFileSync(
  join(folder, "context.json"),
  JSON.stringify({
    case: { number: "SF-1", subject: "boat", lane: "4" },
    customer: { first_name: "Ana", email: "ana@example.org" },
    now: "2026-11-25T10:00:00Z",
    time_zone: "UTC",
  }),
);
writeFileSync(join(folder, "blanks.json"), JSON.stringify({ hours: 3 }));
writeFileSync(join(folder, "bad.json"), JSON.stringify({ now: "yesterday" }));

function shelf(...args: string[]) {
  const { status, stdout, stderr } = spawnSync("node", ["--import", "tsx", "cli/main.ts", ...args], {
    encoding: "utf8",
    env: { ...process.env, NODE_OPTIONS: "" },
  });
  return { status, stdout, stderr };
}

const at = (name: string) => join(folder, name);

describe("shelf render", () => {
  test("prints the letter with its checks and trace", () => {
    const { status, stdout } = shelf(
      "render",
      "--library",
      at("library"),
      "--reply",
      "put-off",
      "--context",
      at("context.json"),
      "--blanks",
      at("blanks.json"),
    );
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({
      subject: "Re: boat [SF-1]",
      text: "Hello Ana, 3 hours late. The form is attached. Fee €6.00, lane 4.",
      attachments: [{ name: "form.txt", size: 6 }],
      checks: [],
      trace: expect.arrayContaining([
        expect.objectContaining({ kind: "passage", name: "car", value: "out" }),
      ]),
    });
  });

  test("reports what stops sending", () => {
    const { stdout } = shelf(
      "render",
      "--library",
      at("library"),
      "--reply",
      "put-off",
      "--context",
      at("context.json"),
    );
    expect((JSON.parse(stdout) as { checks: object[] }).checks).toEqual([
      expect.objectContaining({
        severity: "stop",
        code: "blank-empty",
        at: expect.objectContaining({ start: 11, end: 18 }),
      }),
    ]);
  });
});

describe("shelf rank", () => {
  writeFileSync(
    at("replies.json"),
    JSON.stringify([
      {
        id: "dogs",
        title: "Dogs aboard",
        tags: [],
        channels: ["email"],
        language: "en",
        body: "Dogs are welcome.",
      },
      {
        id: "refund",
        title: "Money back",
        tags: [],
        channels: ["email"],
        language: "en",
        body: "We pay it back.",
      },
    ]),
  );
  const lines = (list: object[]) => list.map((one) => JSON.stringify(one)).join("\n");
  writeFileSync(
    at("history.jsonl"),
    lines([{ id: "h1", channel: "email", subject: "", body: "mein Geld bitte", reply: "refund" }]),
  );
  writeFileSync(
    at("inquiries.jsonl"),
    lines([
      { id: "q1", channel: "email", subject: "", body: "wo ist mein Geld", reply: "dogs" },
      { id: "q2", channel: "email", subject: "dog?", body: "may he come" },
    ]),
  );
  writeFileSync(at("broken.jsonl"), `${lines([{ id: "q1", channel: "email", body: "x" }])}\n{"id": "q2"}\n`);
  const args = ["--replies", at("replies.json"), "--history", at("history.jsonl")];

  test("prints a line an inquiry, in order, the same each time", () => {
    const { status, stdout, stderr } = shelf(
      "rank",
      ...args,
      "--inquiries",
      at("inquiries.jsonl"),
      "--top",
      "2",
    );
    expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
    const ranked = stdout
      .trim()
      .split("\n")
      .map(
        (line) => JSON.parse(line) as { id: string; ranked: { id: string; score: number; why: string[] }[] },
      );
    expect(ranked.map((one) => [one.id, ...one.ranked.map(({ id }) => id)])).toEqual([
      ["q1", "refund", "dogs"],
      ["q2", "dogs", "refund"],
    ]);
    expect(ranked[0]?.ranked[0]?.why).toEqual(expect.arrayContaining(["“geld”", "like h1"]));
    expect(shelf("rank", ...args, "--inquiries", at("inquiries.jsonl"), "--top", "2").stdout).toBe(stdout);
  });

  test("says in which line something is wrong", () => {
    const { status, stdout, stderr } = shelf("rank", ...args, "--inquiries", at("broken.jsonl"));
    expect({ status, stdout }).toEqual({ status: 1, stdout: "" });
    expect(stderr).toMatch(/broken\.jsonl:2: channel: /);
  });
});

describe("errors are one line, with exit 1 for what cannot be done and 2 for wrong use", () => {
  test.each([
    [
      ["render", "--library", at("library"), "--reply", "gone", "--context", at("context.json")],
      1,
      /there is no reply “gone”/,
    ],
    [
      ["render", "--library", at("library"), "--reply", "put-off", "--context", at("bad.json")],
      1,
      /bad.json: case: |bad.json: now: /,
    ],
    [["lint", "--library", at("nowhere")], 1, /there is no such file or folder/],
    [["lint"], 2, /--library is wanted/],
    [["lint", "--colour", "x"], 2, /colour/],
    [["dance"], 2, /no verb/],
  ])("%j", async (args, code, message) => {
    const { status, stdout, stderr } = await run(args);
    expect({ status, stdout }).toEqual({ status: code, stdout: "" });
    expect(stderr).toMatch(message);
    expect(stderr.trim().split("\n")).toHaveLength(1);
  });

  test("which is what the command exits with", async () => {
    expect(shelf("dance")).toEqual(await run(["dance"]));
  });
});

describe("a key for signing letters", () => {
  const key = join(folder, "dkim.pem");
  const make = (...more: string[]) => run(["dkim", "--domain", "example.com", "--out", key, ...more]);

  test("is made once, and what DNS is to say of it is told", async () => {
    const { status, stdout } = await make("--selector", "shelf2026");
    expect(status).toBe(0);
    const made = JSON.parse(stdout) as {
      record: { name: string; value: string; parts: string[] };
      settings: object;
    };
    expect(made.record).toMatchObject({
      name: "shelf2026._domainkey.example.com",
      value: expect.stringMatching(/^v=DKIM1; k=rsa; p=[A-Za-z0-9+/=]{380,}$/) as unknown,
    });
    expect(made.record.parts.join("")).toBe(made.record.value);
    expect(made.settings).toEqual({ DKIM_DOMAIN: "example.com", DKIM_SELECTOR: "shelf2026", DKIM_KEY: key });
    expect(await make()).toMatchObject({
      status: 1,
      stderr: `shelf: ${key} is there already; choose another file\n`,
    });
  });

  test.each([
    [["--domain", "example", "--out", "x"], /is no domain/, 1],
    [["--domain", "example.com", "--out", "/nowhere/at/all"], /cannot be written/, 1],
    [["--domain", "example.com", "--out", "x", "--selector", "a b"], /is no selector/, 1],
    [["--domain", "example.com"], /--out/, 2],
  ])("%j says what is wrong", async (args, words, code) => {
    expect(await run(["dkim", ...args])).toMatchObject({
      status: code,
      stdout: "",
      stderr: expect.stringMatching(words) as unknown,
    });
  });
});

describe("shelf due", () => {
  const calendar = {
    time_zone: "Europe/London",
    hours: { wed: [["09:00", "17:30"]], thu: [["09:00", "17:30"]] },
    holidays: [],
  };
  const written = (name: string, value: unknown) => {
    writeFileSync(at(name), JSON.stringify(value));
    return at(name);
  };
  const asked = (file: string, ...more: string[]) =>
    run(["due", "--calendar", file, "--since", "2026-11-25T17:00:00Z", "--within", "60", ...more]);

  test("tells when an answer is due, and why", async () => {
    const { status, stdout } = await asked(written("calendar.json", calendar));
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toEqual({
      due: "2026-11-26T09:30:00.000Z",
      open_minutes: 60,
      why: [
        "Wednesday, 25 November 2026: 17:00 to 17:30, 30 min",
        "Thursday, 26 November 2026: 09:00 to 09:30, 30 min",
      ],
    });
    const pauses = written("pauses.json", [["2026-11-26T10:00:00+01:00", "2026-11-26T12:00:00Z"]]);
    const paused = await asked(written("calendar.json", calendar), "--pauses", pauses);
    expect(JSON.parse(paused.stdout)).toMatchObject({ due: "2026-11-26T12:30:00.000Z" });
  });

  test.each([
    [{ ...calendar, time_zone: "Mars" }, [], 1, /calendar\.json: time_zone: There is no such time zone/],
    [{ ...calendar, hours: { wed: [["17:00", "09:00"]] } }, [], 1, /hours\.wed\.0: It ends before it begins/],
    [{ ...calendar, country: "ZZ" }, [], 1, /country: The holidays of “ZZ” are not known/],
    [{ ...calendar, region: "BY" }, [], 1, /region: a region is one of a country/],
    [{ ...calendar, hours: {} }, [], 1, /not open for 60 minutes/],
    [calendar, ["--since", "yesterday"], 2, /--since is an instant with its offset/],
    [calendar, ["--since", "2026-11-25T10:00:00"], 2, /--since is an instant with its offset/],
    [calendar, ["--within", "soon"], 2, /--within is a number of minutes/],
    [calendar, ["--within=-5"], 2, /--within is at least 0/],
    [calendar, ["--within", "-5"], 2, /--within/],
    [calendar, ["--pauses", "/nowhere.json"], 1, /nowhere\.json/],
  ])("%j with %j is refused with what to mend", async (given, more, code, words) => {
    const { status, stdout, stderr } = await asked(written("calendar.json", given), ...more);
    expect([status, stdout]).toEqual([code, ""]);
    expect(stderr).toMatch(words);
    expect(stderr.trim().split("\n")).toHaveLength(1);
  });
});

describe("shelf rehearse", () => {
  const rules = (given: object) =>
    writeFileSync(
      join(folder, "rules.json"),
      JSON.stringify({ own_addresses: ["desk@example.com"], ...given }),
    );
  const messages = (lines: object[]) =>
    writeFileSync(join(folder, "messages.jsonl"), lines.map((one) => JSON.stringify(one)).join("\n"));
  const one = {
    channel: "email",
    to: "desk@example.com",
    subject: "boat",
    body: "line\u2028line",
    headers: {},
  };
  const got = {
    ...{
      id: "got-it",
      name: "Got it",
      reply: "got-it",
      mode: "send",
      switched_on_at: "2026-11-25T09:00:00Z",
    },
    when: { value: "message.subject", is: "contains", to: "boat" },
  };
  const rehearse = () => run(["rehearse", "--rules", at("rules.json"), "--messages", at("messages.jsonl")]);

  test("prints a line a message, in their order, and keeps the counts as it goes", async () => {
    rules({ rules: [got] });
    messages([
      { ...one, id: 1, at: "2026-11-25T08:59:00Z", from: "ana@example.org" },
      { ...one, id: 2, at: "2026-11-25T09:00:00Z", from: "Ana <ana@example.org>" },
      { ...one, id: 3, at: "2026-11-25T09:01:00Z", from: "ana@example.org" },
      { ...one, id: 4, at: "2026-11-25T09:02:00Z", from: "ben@example.org", headers: { "List-ID": "<a.b>" } },
      { ...one, id: 5, at: "2026-11-25T09:03:00Z", from: "cy@example.org", subject: "dog" },
    ]);
    const { status, stdout } = await rehearse();
    expect(status).toBe(0);
    const lines = stdout
      .trimEnd()
      .split("\n")
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines).toEqual([
      { id: 1, answers: null, why: ["“Got it”: the message came before it was switched on"] },
      { id: 2, answers: "got-it", why: ["“Got it”: it is for this: message.subject: boat"] },
      { id: 3, answers: null, why: ["“Got it”: it has answered ana@example.org within the last 24 hours"] },
      { id: 4, answers: null, why: ["“Got it”: it came by a list (List-ID)"] },
      { id: 5, answers: null, why: ["“Got it”: its condition does not hold; message.subject: dog"] },
    ]);
  });

  test("a wrong line or rule ends it, with path, place and reason", async () => {
    rules({ rules: [{ ...got, mode: "shout" }] });
    expect(await rehearse()).toMatchObject({
      status: 1,
      stdout: "",
      stderr: expect.stringContaining("rules.json: rules"),
    });
    rules({ rules: [got] });
    messages([{ ...one, id: 1, at: "yesterday", from: "ana@example.org" }]);
    expect(await rehearse()).toMatchObject({
      status: 1,
      stderr: expect.stringContaining("messages.jsonl:1: at:"),
    });
    expect(await run(["rehearse", "--rules", at("rules.json")])).toMatchObject({ status: 2 });
  });
});
