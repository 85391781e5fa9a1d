import { Check, TriangleAlert } from "lucide-react";
import { contrastsOf, type PaperContrast } from "#core/compose/contrast";
import type { Stationery } from "#core/compose/stationery";
import { t } from "../words/setup";

const WORDS = (): Record<PaperContrast["part"], string> => ({
  words: t("words"),
  around: t("headerAndFooter"),
  rule: t("ruleUnderTheHeader"),
});

/** How well the colours of a stationery can be made out, on paper and in the dark. */
export function Contrasts({ paper }: { paper: Pick<Stationery, "accent" | "textColour" | "background"> }) {
  return (
    <table aria-label={t("contrastWithThePage")} className="w-full max-w-xl text-left text-sm">
      <thead className="text-soft">
        <tr className="border-b border-line">
          <th scope="col" className="py-1 font-normal">
            {t("contrastWithThePage")}
          </th>
          <th scope="col" className="w-36 py-1 font-normal">
            {t("onPaper")}
          </th>
          <th scope="col" className="w-36 py-1 font-normal">
            {t("inTheDark")}
          </th>
        </tr>
      </thead>
      <tbody>
        {contrastsOf(paper).map(({ part, light, dark, least }) => (
          <tr key={part} className="border-b border-line">
            <th scope="row" className="py-1 font-normal">
              {WORDS()[part]}
            </th>
            <Ratio ratio={light} least={least} />
            <Ratio ratio={dark} least={least} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Ratio({ ratio, least }: { ratio: number; least: number }) {
  const isEnough = ratio >= least;
  const Sign = isEnough ? Check : TriangleAlert;
  // Never said to be more than it is: 4.49 is not enough.
  const shown = (Math.floor(ratio * 10) / 10).toFixed(1);
  return (
    <td className={`py-1 ${isEnough ? "" : "font-semibold text-look"}`}>
      <span className="inline-flex items-center gap-1.5">
        <Sign size={14} aria-hidden="true" />
        {isEnough ? t("shownEnough", { shown }) : t("shownLeastIsNeeded", { shown, least })}
      </span>
    </td>
  );
}
