import type { Option } from "../ui/select";

/** What somebody may do, in the words of forms. */
export const ROLES: readonly Option<"agent" | "curator" | "lead">[] = [
  ["agent", "agent: answers"],
  ["curator", "curator: keeps the shelves too"],
  ["lead", "lead: sets up the house too"],
];
