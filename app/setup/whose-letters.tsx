import { Link } from "react-router";
import { detailsPrinted, type AgentDetail } from "#core/checks/agent-details";
import type { Doc } from "#core/document/types";
import { counted, listed } from "#core/text/counted";
import type { Writer } from "#server/house/writers";
import type { Viewer } from "#server/people/viewer";

const WORDS: Record<AgentDetail, string> = {
  title: "title",
  department: "department",
  phone: "phone number",
};

/** So many are named; of more the number says enough. */
const MOST_NAMED = 4;

interface Props {
  /** Those whose letters it stands in. */
  writers: Writer[];
  /** Details of its writer that it prints. */
  prints: AgentDetail[];
  /** What is said where it is nobody’s letters. */
  nobody?: string;
  /** Whether it takes the place of signatures of their own. */
  imposed?: boolean;
  viewer: Pick<Viewer, "id" | "role">;
}

/** Before something is kept that stands in letters: whose letters change, and who lacks what it prints, with the way to fill it. */
export function WhoseLetters({
  writers,
  prints,
  nobody = "Nobody’s letters change: nobody is of this team yet.",
  imposed = false,
  viewer,
}: Props) {
  const own = imposed ? writers.filter((writer) => writer.signs) : [];
  const lacking = writers.flatMap((writer) => {
    const details = prints.filter((detail) => writer.lacks.includes(detail));
    return details.length > 0 ? [{ writer, details }] : [];
  });
  return (
    <div role="note" aria-label="Whose letters change" className="text-sm text-soft">
      <p>{whose(writers, viewer.id) ?? nobody}</p>
      {own.length > 0 && (
        <p>
          {own.length === 1
            ? `${names(own)} has a signature of their own; it will not stand in letters of this team.`
            : `${names(own)} have signatures of their own; they will not stand in letters of this team.`}
        </p>
      )}
      {lacking.map(({ writer, details }) => (
        <p key={writer.id} className="text-look">
          {writer.id === viewer.id ? "You have no " : `${writer.name} has no `}
          {listed(details.map((detail) => WORDS[detail]))}
          {writer.id === viewer.id ? (
            <>
              .{" "}
              <Link to="/account" className="quiet-link">
                Fill in yours
              </Link>
            </>
          ) : viewer.role === "lead" ? (
            <>
              .{" "}
              <Link to={`/setup/people/${writer.id}`} className="quiet-link">
                Fill in theirs
              </Link>
            </>
          ) : (
            "; they fill it in under their name, or a lead does."
          )}
        </p>
      ))}
    </div>
  );
}

function whose(writers: Writer[], viewer: number): string | null {
  const [only] = writers;
  if (!only) return null;
  if (writers.length === 1 && only.id === viewer) return "Your letters change from now on.";
  if (writers.length === 1) return `Letters of ${only.name} change from now on.`;
  return `Letters of ${counted(writers.length, "person", "people")} change from now on: ${names(writers)}.`;
}

function names(writers: Writer[]): string {
  const named = writers.slice(0, writers.length > MOST_NAMED ? MOST_NAMED - 1 : MOST_NAMED);
  const more = writers.length - named.length;
  return listed([...named.map((writer) => writer.name), ...(more > 0 ? [`${more} more`] : [])]);
}

/** The details of their writer that some documents print. */
export function printedBy(documents: readonly (Doc | null)[]): AgentDetail[] {
  return detailsPrinted(documents.filter((document) => document !== null));
}
