import type { Source } from "../document/types";
import type { Token } from "../tokens/catalogue";
import type { Context } from "../tokens/context";
import type { Style } from "../tokens/format";
import type { ComposeProblem } from "./letter";
import type { Decision } from "./passages";
import type { Slip } from "./slip";

/** A problem that still knows its place only by its slip; composing adds the place in the letter. */
export interface FillProblem extends Omit<ComposeProblem, "at"> {
  source: Pick<Source, "slip" | "from" | "to"> | null;
}

/** What a slip is filled with. */
export interface FillInput {
  slip: Pick<Slip, "id" | "document" | "blanks" | "passages" | "values">;
  context: Context;
  style: Style;
  tokens: ReadonlyMap<string, Token>;
  decisions: ReadonlyMap<string, Decision>;
}
