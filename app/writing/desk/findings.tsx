import { languageName } from "#core/language/tag";
import type { WriterFinding } from "#core/checks/written";
import { t } from "../../words/writing";

/** What the checks found, each leading to its place. */
export function Findings({
  findings,
  onGo,
}: {
  findings: WriterFinding[];
  onGo: (finding: WriterFinding) => void;
}) {
  const wrong = findings.filter((one) => one.severity === "wrong").length;
  return (
    <section aria-label={t("checks")} className="border-t border-line px-6 py-2.5 text-sm">
      <p role="status" className="text-soft">
        {findings.length === 0
          ? t("nothingToSeeTo")
          : [
              ...(wrong > 0 ? [t("wrongToPutRight", { wrong })] : []),
              ...(findings.length > wrong ? [t("countWorthALook", { count: findings.length - wrong })] : []),
            ].join(", ")}
      </p>
      {findings.length > 0 && (
        <ul className="mt-1 flex max-h-28 flex-col gap-0.5 overflow-y-auto">
          {findings.map((finding, index) => (
            <li key={`${index} ${finding.message}`}>
              <button
                type="button"
                className={`text-left ${finding.severity === "wrong" ? "text-stop" : "text-look"}`}
                onClick={() => onGo(finding)}
              >
                {finding.language && `${languageName(finding.language)}: `}
                {finding.message}
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
