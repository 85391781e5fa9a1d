import type { Values } from "../conditions/evaluate";
import { testsOf } from "../conditions/condition";
import { wanting } from "../conditions/wanting";
import type { AnyNode } from "../document/types";
import { passagesOf } from "../document/walk";
import { ownEntry } from "../tokens/own";
import { stands, type Decision } from "./passages";
import type { Slip } from "./slip";

/**
 * The required blanks that a slip cannot do without and that have no answer: those on which a passage of its words
 * still waits, and those that stand in its words without being printed. What stands under a passage that does
 * not stand asks for nothing. Printed blanks leave a gap of their own when the slip is filled.
 * @param isEmpty whether a blank, by its name, has no value
 * @returns names, in the order in which they are met
 */
export function unanswered(
  slip: Pick<Slip, "document" | "blanks" | "passages">,
  decisions: ReadonlyMap<string, Decision>,
  values: Values,
  isEmpty: (name: string) => boolean,
): string[] {
  const open = (name: string) => (ownEntry(slip.blanks, name)?.required ?? false) && isEmpty(name);
  const found = new Set<string>();
  const visit = (node: AnyNode) => {
    const refs = passagesOf(node);
    for (const ref of refs) {
      const passage = ownEntry(slip.passages, ref.id);
      if (passage) for (const name of wanting(passage.when, values, open)) found.add(name);
      if (!stands([ref], decisions)) return;
    }
    if (node.type === "blank" && ownEntry(slip.blanks, node.attrs.name)?.printed === false) {
      if (open(node.attrs.name)) found.add(node.attrs.name);
    }
    if ("content" in node) for (const child of node.content) visit(child);
  };
  for (const block of slip.document.content) visit(block);
  return [...found];
}

/** The blanks that a slip's words print or that steer its passages, whatever stands just now: those that its agent is asked. */
export function askedBlanks(slip: Pick<Slip, "document" | "passages">): Set<string> {
  const found = new Set<string>();
  const visit = (node: AnyNode) => {
    for (const { id } of passagesOf(node)) {
      const passage = ownEntry(slip.passages, id);
      if (passage)
        for (const test of testsOf(passage.when))
          if (test.value.startsWith("blank.")) found.add(test.value.slice("blank.".length));
    }
    if (node.type === "blank") found.add(node.attrs.name);
    if ("content" in node) for (const child of node.content) visit(child);
  };
  for (const block of slip.document.content) visit(block);
  return found;
}
