import type { Written } from "#core/language/written";
import type { Team } from "../db/entities/people";

/** What a team is called, in its languages. */
export function namesOf({ name, language, names }: Team): Written<string> {
  return { language, text: name, others: names };
}
