import { actionResult } from "#server/web/results";
import { idInPath } from "#server/edge";
import { proposalSchema, publishProposal } from "#server/replies/publishing";
import { readBody } from "#server/web/body";
import { signedIn } from "#server/web/context";
import { answerOrRefusal } from "../../ui/refusal";
import type { Route } from "./+types/publish-proposal";

/** Publishes a colleague’s proposal. */
export async function action(args: Route.ActionArgs) {
  const { viewer, em, now } = await signedIn(args);
  return actionResult(async () => {
    const { over, decision } = await readBody(args.request, proposalSchema);
    const version = idInPath.parse(args.params.version);
    return { number: await publishProposal(em, viewer, args.params.key, version, over, decision, now) };
  });
}

export const clientAction = answerOrRefusal;
