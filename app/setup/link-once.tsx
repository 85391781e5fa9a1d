import { useRef, useState } from "react";
import { Button } from "../ui/button";
import { Time } from "../ui/time";

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
    <section aria-label="The link" className="mt-4 max-w-3xl border-l-[3px] border-accent bg-wash px-4 py-3">
      <p>
        The link is on its way to <strong className="font-semibold">{email}</strong> and is good until{" "}
        <Time at={link.expires} />. It is shown here only now, for you to hand on in another way if you wish.
      </p>
      <p className="mt-2 flex items-center gap-4">
        <input
          ref={field}
          readOnly
          aria-label="Link to choose a password"
          className="lined-field min-w-0 grow font-mono text-sm"
          value={link.url}
          onFocus={(event) => event.currentTarget.select()}
        />
        <Button look="quiet" onClick={() => void copy()}>
          {copied ? "Copied" : "Copy"}
        </Button>
      </p>
    </section>
  );
}
