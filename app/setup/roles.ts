import type { Option } from "../ui/select";
import { t } from "../words/setup";

/** What somebody may do, in the words of forms. */
export const ROLES = (): readonly Option<"agent" | "curator" | "lead">[] => [
  ["agent", t("agentAnswers")],
  ["curator", t("curatorKeepsTheShelvesToo")],
  ["lead", t("leadSetsUpTheHouseToo")],
];
