import { expect, test, type Page } from "@playwright/test";
import { violations } from "./axe";
import { choose, deliverToUs, header, mailbox, nextMail, said, showCase, signIn } from "./house";

/** Rules that answer by themselves: made as a sentence, rehearsed, switched on; whom they answer and whom never. */

/** Writes a rule for what has a word in it, and saves it. */
async function writeRule(page: Page, name: string, word: string): Promise<void> {
  await page.getByRole("link", { name: "Standing answers", exact: true }).click();
  await page.getByRole("link", { name: "Write a rule" }).click();
  await page.waitForURL("/standing/new");
  await page.getByRole("textbox", { name: "Its name" }).fill(name);
  await page.getByRole("button", { name: "Its condition: whatever it says" }).click();
  await page.getByRole("button", { name: "ask for something" }).click();
  await page.getByRole("combobox", { name: "What is asked for" }).click();
  await page.getByRole("option", { name: "the message’s text", exact: true }).click();
  await choose(page.getByRole("combobox", { name: "How it is compared" }), "contains");
  await page.getByRole("textbox", { name: "Value" }).fill(word);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: `the message’s text contains “${word}”` })).toBeFocused();
  await page.getByRole("combobox", { name: "The reply" }).click();
  await page.keyboard.type("café");
  await page.getByRole("option", { name: /^The café, food and allergies/ }).click();
  await page.getByRole("button", { name: /^Minutes in which it can be called back/ }).click();
  await page.getByLabel("Minutes in which it can be called back", { exact: true }).fill("0");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Save the rule" }).click();
  await expect(page.getByRole("link", { name: new RegExp(`^${name} off`) })).toBeVisible();
}

test("a rule is made, rehearsed and switched on; of six messages it answers two, and no program", async ({
  page,
}) => {
  test.slow();
  const stamp = Date.now() % 100_000;
  const word = `zephyr${stamp}`;
  await signIn(page, "sunniva@example.com");
  await writeRule(page, `Food ${stamp}`, word);

  // It cannot be switched on before it was rehearsed as it is.
  const rehearsal = page.getByRole("region", { name: "Rehearsal" });
  await expect(page.getByText("Rehearse it, then it can be switched on.")).toBeVisible();
  await rehearsal.getByRole("button", { name: "Rehearse" }).click();
  await expect(rehearsal.getByRole("heading", { name: /^In the last [\d,]+ messages/ })).toBeVisible();
  await expect(rehearsal.getByText("none of its business")).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "let it send…" }).click();
  const question = page.getByRole("alertdialog");
  await expect(question).toContainText(
    /it would have answered 0; 0 of them a person answered with something else/,
  );
  await question.getByRole("button", { name: "Let it send" }).click();
  await expect(said(page, "The rule is on")).toBeVisible();
  const listed = page.getByRole("link", { name: new RegExp(`^Food ${stamp}`) });
  await expect(listed).toContainText("sends · 0 this week");

  // Two people; the first of them again; a program, a list; and somebody who asks something else.
  const who = (name: string) => `${name}.${stamp}@example.org`;
  const text = `Is there bread aboard, ${word}?`;
  const write = (name: string, more: object = {}) =>
    deliverToUs({
      from: `${name} <${who(name)}>`,
      to: "desk@example.com",
      subject: `bread ${name}`,
      text,
      ...more,
    });
  const { messageId } = await write("ana");
  await write("ben");
  await write("cy", { headers: { "Auto-Submitted": "auto-replied" } });
  await write("dora", { list: { id: { url: "quay.example.org", comment: "Quay" } } });
  await write("eve", { text: "Is there bread aboard?" });
  await write("ana", { subject: "and butter" });
  const answer = await nextMail(who("ana"));
  expect(header(answer, "auto-submitted")).toBe("auto-replied");
  expect(header(answer, "in-reply-to")).toBe(messageId);
  await nextMail(who("ben"));

  // What it says of each message that it is for; the last that came is among them, so that nothing is still to come.
  const did = page.getByRole("region", { name: "What it did" });
  await expect(async () => {
    await page.reload();
    await expect(did.getByRole("row")).toHaveCount(6, { timeout: 2000 });
  }).toPass({ timeout: 60_000 });
  await expect(did.getByRole("row", { name: /did not answer/ })).toHaveCount(3);
  await expect(did).toContainText("a program sent it (Auto-Submitted: auto-replied)");
  await expect(did).toContainText("it came by a list");
  await expect(did).toContainText(`it has answered ${who("ana")} within the last 24 hours`);
  await expect(listed).toContainText("sends · 2 this week");
  expect(await mailbox(who("ana"))).toHaveLength(1);
  for (const name of ["cy", "dora", "eve"]) expect(await mailbox(who(name))).toHaveLength(0);
  expect(await violations(page)).toEqual([]);

  // A program that answers the answer, and says so or does not: neither hears anything.
  const reply = {
    inReplyTo: answer.messageId ?? "",
    references: answer.messageId ?? "",
    subject: `Re: ${answer.subject}`,
  };
  await write("ana", { ...reply, headers: { "Auto-Submitted": "auto-replied" } });
  await write("ana", reply);
  await expect(async () => {
    await page.reload();
    await expect(did.getByRole("row")).toHaveCount(8, { timeout: 2000 });
  }).toPass({ timeout: 60_000 });
  expect(await mailbox(who("ana"))).toHaveLength(1);

  // From now on it prepares: on the case, for somebody to take.
  await page.getByRole("button", { name: "only prepare drafts" }).click();
  await expect(listed).toContainText("prepares drafts");
  await write("finn");
  await showCase(page, "finn");
  const notices = page.getByRole("list", { name: "Notices of this case" });
  await expect(notices).toContainText(
    `The rule “Food ${stamp}” is for this. Tell them by “The café, food and allergies”?`,
  );
  await notices.getByRole("button", { name: "take it" }).click();
  await expect(page.getByRole("textbox", { name: "Our answer" })).toContainText("café");
  await page.keyboard.press("Control+Shift+Enter");
  const taken = await nextMail(who("finn"));
  expect(header(taken, "auto-submitted")).toBeUndefined();

  await page.getByRole("link", { name: "Standing answers", exact: true }).click();
  await listed.click();
  await expect(page.getByRole("heading", { name: `Food ${stamp}` })).toBeAttached();
  await page.getByRole("button", { name: "take it out" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "take it out" }).click();
  await expect(listed).toHaveCount(0);
});

test("two programs that answer each other fall silent, though the other says nowhere that it is one", async ({
  page,
}) => {
  test.slow();
  const stamp = Date.now() % 100_000;
  const word = `echo${stamp}`;
  const name = `Echo ${stamp}`;
  const robot = `robot.${stamp}@example.org`;
  await signIn(page, "sunniva@example.com");
  await writeRule(page, name, word);
  // The same sender may hear it as often as it writes: only the thread ends it.
  await page.getByRole("button", { name: /^Hours before the same sender hears it again/ }).click();
  await page.getByLabel("Hours before the same sender hears it again", { exact: true }).fill("0");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Save the rule" }).click();
  await expect(said(page, "The rule is saved")).toBeVisible();
  const rehearsal = page.getByRole("region", { name: "Rehearsal" });
  await rehearsal.getByRole("button", { name: "Rehearse" }).click();
  await expect(rehearsal.getByRole("heading", { name: /^In the last [\d,]+ messages/ })).toBeVisible();
  await page.getByRole("button", { name: "let it send…" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "Let it send" }).click();
  await expect(said(page, "The rule is on")).toBeVisible();

  const write = (more: object) =>
    deliverToUs({ from: robot, to: "desk@example.com", text: `Is there bread, ${word}?`, ...more });
  await write({ subject: `bread ${stamp}` });
  for (const turn of [1, 2, 3]) {
    const answer = await nextMail(robot, turn);
    expect(header(answer, "auto-submitted")).toBe("auto-replied");
    await write({
      subject: `Re: ${answer.subject}`,
      inReplyTo: answer.messageId ?? "",
      references: answer.messageId ?? "",
    });
  }
  const did = page.getByRole("region", { name: "What it did" });
  await expect(async () => {
    await page.reload();
    await expect(did).toContainText("there were 3 automatic answers on this thread already", {
      timeout: 2000,
    });
  }).toPass({ timeout: 60_000 });
  expect(await mailbox(robot)).toHaveLength(3);
  await page.getByRole("button", { name: "take it out" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "take it out" }).click();
  await expect(page.getByRole("link", { name: new RegExp(`^${name}`) })).toHaveCount(0);
});
