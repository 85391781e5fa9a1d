import { re2Patterns } from "#core/conditions/re2";
import { whyInWords } from "#core/standing/decide";
import { ownAddresses } from "#core/standing/loop";
import { incomingSchema } from "#core/standing/message";
import { rehearsal } from "#core/standing/rehearse";
import { standingRulesSchema } from "#core/standing/rule";
import { eachLine, readChecked } from "./read";

/**
 * `shelf rehearse`: a line a message, in their order: the rule that would have answered it, and why. All is read once before
 * the first line, so that nothing is printed where something is wrong; no more than a message is held at once.
 * @throws Failure with path, line and reason
 */
export async function* rehearse(options: { rules: string; messages: string }): AsyncGenerator<string, void> {
  const { own_addresses: own, rules } = await readChecked(options.rules, standingRulesSchema);
  const names = new Map(rules.map(({ id, name }) => [id, name === "" ? String(id) : name]));
  const decide = rehearsal({ rules, own: ownAddresses(own), patterns: re2Patterns });
  for await (const _ of eachLine(options.messages, incomingSchema));
  for await (const message of eachLine(options.messages, incomingSchema)) {
    const decision = decide(message);
    const why = whyInWords(decision, (rule) => names.get(rule) ?? String(rule));
    yield JSON.stringify({ id: message.id, answers: decision.answers, why });
  }
}
