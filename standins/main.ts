import { join } from "node:path";
import { z } from "zod";
import { startStandins } from "./start";

const port = z.coerce.number().int().min(1).max(65535);
const environment = z
  .object({
    STANDINS_PORT: port,
    STANDINS_SMTP_PORT: port,
    INBOUND_SMTP_PORT: port,
    DATA_DIR: z.string().min(1),
    PROGRAM_URL: z.url(),
    SMS_GATEWAY_TOKEN: z.string().min(1),
  })
  .parse(process.env);

const stop = await startStandins({
  httpPort: environment.STANDINS_PORT,
  smtpPort: environment.STANDINS_SMTP_PORT,
  programSmtpPort: environment.INBOUND_SMTP_PORT,
  program: { url: environment.PROGRAM_URL, token: environment.SMS_GATEWAY_TOKEN },
  folder: join(environment.DATA_DIR, "standins"),
});

for (const signal of ["SIGINT", "SIGTERM"] as const) {
  process.once(signal, () => {
    void stop().then(() => process.exit(0));
  });
}
