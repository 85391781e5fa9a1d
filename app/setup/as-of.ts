import type { Written } from "#core/language/written";
import type { Context } from "#core/tokens/context";

/** A context as letters of another team have it. @param names the team's name in its languages */
export function asOf(context: Context, names: Written<string>): Context {
  const { language, text, others } = names;
  return {
    ...context,
    agent: { ...context.agent, team: text },
    written: { ...context.written, "agent.team": { language, others: { ...others } } },
  };
}
