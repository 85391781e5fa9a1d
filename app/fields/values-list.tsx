import type { FilledField } from "#server/fields/values";
import { formatValue } from "#core/tokens/format";
import { valueOf } from "#core/tokens/values";
import { useClock } from "../ui/time";
import { t } from "../words/ui";
import { FillIn } from "./fill-in";

interface Props {
  fields: FilledField[];
  /** Whose fields they are. */
  id: number;
  title: string;
  /** Whether the viewer may fill them in. */
  mayFill?: boolean;
}

/** The house's own fields of somebody, with what fills them in. */
export function ValuesList({ fields, id, title, mayFill = true }: Props) {
  const { timeZone } = useClock();
  const [first] = fields;
  if (!first) return null;
  return (
    <div className="mt-3">
      <dl className="grid max-w-3xl grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1 border-y border-line py-3 text-[13px] max-sm:grid-cols-[auto_1fr]">
        {fields.map(({ key, label, type, value }) => {
          const read = valueOf(value, type === "choice" ? "text" : type, "");
          const shown = formatValue(
            read,
            { name: key, fn: null, options: {} },
            { language: "en-GB", timeZone },
          );
          return (
            <div key={key} className="contents">
              <dt className="text-soft first-letter:uppercase">{label}</dt>
              <dd className="[overflow-wrap:anywhere]">
                {shown.kind === "text" ? shown.text : <span className="text-soft">{t("notKnown")}</span>}
              </dd>
            </div>
          );
        })}
      </dl>
      {mayFill && (
        <p className="mt-2 text-sm">
          <FillIn owners={[{ of: first.of, id, title }]} />
        </p>
      )}
    </div>
  );
}
