import type { z } from "zod";
import { Unusable } from "../errors";

/** Reads a request's JSON by a schema. @throws ZodError; Unusable where it is no JSON */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  let json: unknown;
  try {
    json = await request.json();
  } catch {
    throw new Unusable("The request is no JSON");
  }
  return schema.parse(json);
}
