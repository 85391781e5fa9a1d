import { useMemo, useState } from "react";
import { compose } from "#core/compose/compose";
import type { Stationery as Paper } from "#core/compose/stationery";
import { readMarkdown } from "#core/formats/markdown";
import type { Token } from "#core/tokens/catalogue";
import type { Context } from "#core/tokens/context";
import { Checkbox } from "../ui/checkbox";
import { PaperFrame } from "../ui/paper-frame";
import { t } from "../words/setup";

/** Letters as readers show them that turn light ones dark; pictures stay as they are. */
const DARK =
  "<style>html{background:#ffffff;filter:invert(1) hue-rotate(180deg)}img{filter:invert(1) hue-rotate(180deg)}</style>";

interface Props {
  paper: Paper;
  /** BCP 47 tag of the header and footer to show. */
  language: string;
  tokens: ReadonlyMap<string, Token>;
  context: Context;
}

/** A letter on a stationery, as mailboxes show it. */
export function PaperPreview({ paper, language, tokens, context }: Props) {
  const [asText, setAsText] = useState(false);
  const [dark, setDark] = useState(false);
  const letter = useMemo(
    () =>
      compose({
        slips: [
          {
            id: "sample",
            reply: null,
            title: "",
            part: "answer",
            document: readMarkdown(t("sampleLetter")).doc,
            blanks: {},
            passages: {},
            values: {},
            subject: null,
            attachments: [],
          },
        ],
        context,
        channel: "email",
        language,
        tokens,
        patterns: () => null,
        signature: null,
        stationery: paper,
        subject: { from: "own", text: t("yourMessage") },
        threadSubject: null,
        caseNumber: "SF-20417",
        attachments: [],
        contentId: (id) => id,
      }),
    [paper, language, context, tokens],
  );
  // The preview shows pictures from here; letters carry them.
  const html = (letter.html ?? "").replaceAll(/"cid:(\d+)"/g, '"/library-files/$1"');
  return (
    <section aria-label={t("aLetterOnIt")}>
      <p className="mb-2 flex flex-wrap gap-x-5">
        <strong>{t("aLetterOnIt")}</strong>
        <label className="flex items-center gap-1.5 text-sm">
          <Checkbox checked={asText} onChange={setAsText} />
          {t("asPlainText")}
        </label>
        {!asText && (
          <label className="flex items-center gap-1.5 text-sm">
            <Checkbox checked={dark} onChange={setDark} />
            {t("inTheDark")}
          </label>
        )}
      </p>
      {asText ? (
        <pre className="border border-line p-4 font-mono text-sm whitespace-pre-wrap">{letter.text}</pre>
      ) : (
        <PaperFrame
          title={t("aLetterOnThisStationery")}
          html={dark ? html.replace("</head>", `${DARK}</head>`) : html}
          className="h-80 w-full max-w-3xl border border-line bg-white"
        />
      )}
    </section>
  );
}
