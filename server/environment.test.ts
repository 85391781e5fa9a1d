import { expect, test } from "@jest/globals";
import { readEnvironment } from "./environment";

const good = { DATABASE_URL: "postgresql://localhost/x", SESSION_SECRET: "x".repeat(32) };

test("has a usual value for everything but the database and the secret", () => {
  expect(readEnvironment(good)).toMatchObject({
    ok: true,
    environment: {
      port: 4310,
      host: "127.0.0.1",
      smtpUrl: "smtp://127.0.0.1:4321",
      inboundSmtpPort: 4325,
      seed: "demo",
      standins: { on: true, port: 4320 },
    },
  });
  expect(readEnvironment({ ...good, SMTP_URL: "smtp://mail.example.com:25" })).toMatchObject({
    environment: { standins: { on: false }, smtpUrl: "smtp://mail.example.com:25" },
  });
  expect(readEnvironment({ ...good, PORT: "" })).toMatchObject({ environment: { port: 4310 } });
});

test.each([
  [{ PORT: "http" }, "PORT=http is not a number"],
  [{ PORT: "70000" }, "PORT=70000 is not a port"],
  [{ DATABASE_URL: "mysql://x/y" }, "DATABASE_URL=mysql://x/y is not a postgresql:// address"],
  [{ SEED: "all" }, "SEED=all is neither demo nor none"],
  [{ SESSION_SECRET: "short" }, "SESSION_SECRET=… is shorter than 32 characters"],
  [{ DATABASE_URL: undefined }, "DATABASE_URL is not set"],
  [{ STANDINS: "off" }, "STANDINS=off wants SMTP_URL: there is no mail server to send through"],
])("%j is told in one line", (changes, problem) => {
  expect(readEnvironment({ ...good, ...changes })).toEqual({ ok: false, problem });
});
