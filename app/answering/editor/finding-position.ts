import type { EditorView } from "@tiptap/pm/view";
import { letterState } from "./letter-state";

/** Where a finding's words are in the editor; null when it is about none of the slips' words. */
export function findingPosition(view: EditorView, index: number): { from: number; to: number } | null {
  const { checks, slips } = letterState(view.state);
  const source = checks[index]?.at?.source;
  const slip = source ? slips.find((one) => one.id === source.slip) : undefined;
  return source && slip ? { from: slip.position + 1 + source.from, to: slip.position + 1 + source.to } : null;
}
