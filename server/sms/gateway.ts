import { z } from "zod";
import { reasonOf } from "#core/text/reason";
import { environment } from "../environment";

/** How long a gateway may think, in milliseconds. */
const TIMEOUT_MS = 10_000;

/** A short message as a gateway is handed it. */
export interface ShortMessage {
  /** Ours; the same one twice is one message. */
  id: string;
  /** ITU-T E.164. */
  from: string;
  to: string;
  text: string;
}

const refusal = z.object({ problem: z.string().max(1000) });

/** What a gateway says of a message that it did not take. */
export class GatewayRefusal extends Error {
  /** Whether another try cannot mend it. */
  readonly final: boolean;

  constructor(message: string, final: boolean) {
    super(message);
    this.final = final;
  }
}

/** What is not the message's fault: asked too often, or too slowly. */
const MAY_PASS = new Set([401, 403, 408, 425, 429]);

/**
 * Hands a short message to the gateway (docs/sms.md).
 * @throws GatewayRefusal with the gateway's words where it did not take it
 */
export async function handOver(message: ShortMessage): Promise<void> {
  const { sms } = environment();
  if (sms === null) throw new GatewayRefusal("No gateway for short messages is set (SMS_GATEWAY_URL)", true);
  let response: Response;
  try {
    response = await fetch(`${sms.url}/messages`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Authorization: `Bearer ${sms.token}` },
      body: JSON.stringify(message),
      signal: AbortSignal.timeout(TIMEOUT_MS),
      redirect: "error",
    });
  } catch (error) {
    throw new GatewayRefusal(`The gateway cannot be reached: ${reasonOf(error)}`, false);
  }
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return;
  const told = refusal.safeParse(body);
  const words = told.success ? told.data.problem : `The gateway answers ${response.status}`;
  throw new GatewayRefusal(words, response.status < 500 && !MAY_PASS.has(response.status));
}
