import { Link } from "react-router";
import { detailsPrinted, type AgentDetail } from "#core/checks/agent-details";
import type { Doc } from "#core/document/types";
import { listed } from "#core/text/counted";
import type { Writer } from "#server/house/writers";
import type { Viewer } from "#server/people/viewer";
import { t } from "../words/setup";
import { Sentence } from "../words/sentence";

const WORDS = (): Record<AgentDetail, string> => ({
  title: t("title2"),
  department: t("department2"),
  phone: t("phoneNumber"),
});

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
  nobody = t("nobodysLettersChangeNobodyIsOf"),
  imposed = false,
  viewer,
}: Props) {
  const own = imposed ? writers.filter((writer) => writer.signs) : [];
  const lacking = writers.flatMap((writer) => {
    const details = prints.filter((detail) => writer.lacks.includes(detail));
    return details.length > 0 ? [{ writer, details }] : [];
  });
  return (
    <div role="note" aria-label={t("whoseLettersChange")} className="text-sm text-soft">
      <p>{whose(writers, viewer.id) ?? nobody}</p>
      {own.length > 0 && (
        <p>
          {own.length === 1
            ? t("ownHasASignatureOfTheir", { own: names(own) })
            : t("ownHaveSignaturesOfTheirOwn", { own: names(own) })}
        </p>
      )}
      {lacking.map(({ writer, details }) => (
        <p key={writer.id} className="text-look">
          <Lacking
            writer={writer}
            details={listed(details.map((detail) => WORDS()[detail]))}
            viewer={viewer}
          />
        </p>
      ))}
    </div>
  );
}

/** What somebody lacks, with the way to fill it that the viewer has. */
function Lacking({
  writer: { id, name },
  details,
  viewer,
}: {
  writer: Writer;
  details: string;
  viewer: Props["viewer"];
}) {
  if (id === viewer.id)
    return (
      <Sentence
        of={t}
        name="youLack"
        values={{ details }}
        parts={[<Link key="0" to="/account" className="quiet-link" />]}
      />
    );
  if (viewer.role !== "lead") return t("theyLack", { name, details });
  const link = <Link key="0" to={`/setup/people/${id}`} className="quiet-link" />;
  return <Sentence of={t} name="fillInTheirs" values={{ name, details }} parts={[link]} />;
}

function whose(writers: Writer[], viewer: number): string | null {
  const [only] = writers;
  if (!only) return null;
  if (writers.length === 1 && only.id === viewer) return t("yourLettersChangeFromNowOn");
  if (writers.length === 1) return t("lettersOfOnlyChangeFromNow", { only: only.name });
  return t("lettersOfCountPeopleChangeFrom", { count: writers.length, writers: names(writers) });
}

function names(writers: Writer[]): string {
  const named = writers.slice(0, writers.length > MOST_NAMED ? MOST_NAMED - 1 : MOST_NAMED);
  const more = writers.length - named.length;
  return listed([
    ...named.map((writer) => writer.name),
    ...(more > 0 ? [t("countMore", { count: more })] : []),
  ]);
}

/** The details of their writer that some documents print. */
export function printedBy(documents: readonly (Doc | null)[]): AgentDetail[] {
  return detailsPrinted(documents.filter((document) => document !== null));
}
