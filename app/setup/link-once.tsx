import { useRef, useState } from "react";
import { Button } from "../ui/button";
import { Time } from "../ui/time";
import { t } from "../words/setup";
import { Sentence } from "../words/sentence";

interface Props {
  link: { url: string; expires: string };
  email: string;
}

/** A link by which a colleague chooses a password: it was sent to them, and is shown here this once. */
export function LinkOnce({ link, email }: Props) {
  const field = useRef<HTMLInputElement>(null);
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    field.current?.select();
    try {
      await navigator.clipboard.writeText(link.url);
      setCopied(true);
    } catch (error) {
      // Not every browser lets a page copy: the words are selected, and the keys do it.
      console.warn("The link was selected, not copied", error);
    }
  };
  return (
    <section
      aria-label={t("theLink")}
      className="mt-4 max-w-3xl border-l-[3px] border-accent bg-wash px-4 py-3"
    >
      <p>
        <Sentence
          of={t}
          name="theLinkIsOnItsWay"
          values={{ email }}
          parts={[<strong key="0" className="font-semibold" />, <Time key="1" at={link.expires} />]}
        />
      </p>
      <p className="mt-2 flex items-center gap-4">
        <input
          ref={field}
          readOnly
          aria-label={t("linkToChooseAPassword")}
          className="lined-field min-w-0 grow font-mono text-sm"
          value={link.url}
          onFocus={(event) => event.currentTarget.select()}
        />
        <Button look="quiet" onClick={() => void copy()}>
          {copied ? t("copied") : t("copy")}
        </Button>
      </p>
    </section>
  );
}
