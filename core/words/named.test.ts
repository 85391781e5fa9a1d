import { expect, test } from "@jest/globals";
import { channelName, partName, replyStates, roleName, stateName, YES_NO, yesOrNo } from "./named";

test("what is one of few is said as people say it", () => {
  expect(["email", "chat", "sms"].map(channelName)).toEqual(["email", "chat", "SMS"]);
  expect(replyStates.map(stateName)).toEqual(["draft", "ready to check", "shelved", "retired"]);
  expect(YES_NO.map(yesOrNo)).toEqual(["yes", "no"]);
  expect([partName("closing"), roleName("lead")]).toEqual(["closing", "lead"]);
});

test("a channel that nothing is known of stands for itself, whatever it is called", () => {
  for (const channel of ["constructor", "__proto__", "", "{{name}}", "opening"])
    expect(channelName(channel)).toBe(channel);
});
