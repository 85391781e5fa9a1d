import { useState, type ReactNode } from "react";
import { useFetcher } from "react-router";
import type { Phone as PhoneShown } from "#server/outside/phones";
import { Button } from "../ui/button";
import { FormProblem } from "../ui/form";
import { Select } from "../ui/select";
import { Time } from "../ui/time";
import { t } from "../words/outside";

interface Props {
  phone: PhoneShown | null;
  /** The number as people read it; null where none is known. */
  shown: string | null;
  /** Our numbers. */
  numbers: { number: string; team: string }[];
  /** The page that it stands on. */
  back: string;
}

/** A phone as its owner holds it: what has arrived on it, and writing from it. */
export function Phone({ phone, shown, numbers, back }: Props) {
  const fetcher = useFetcher<{ problem: string | null }>();
  const [own, setOwn] = useState("");
  const latest = phone?.messages.at(-1)?.other;
  const [to, setTo] = useState<string | null>(null);
  const chosen = to ?? numbers.find((one) => one.number === latest)?.number ?? numbers[0]?.number ?? "";
  const number = phone?.number ?? own;
  return (
    <Shell>
      <h3 className="font-bold">{t("phone")}</h3>
      <p className="text-sm text-soft">{shown ?? t("noNumberIsKnown")}</p>
      <ol aria-label={t("onThePhone")} className="mt-3 flex grow flex-col gap-2 overflow-y-auto">
        {phone?.messages.map((message) => (
          <li
            key={message.id}
            className={`max-w-[85%] px-3 py-1.5 font-serif [overflow-wrap:anywhere] whitespace-pre-wrap ${
              message.written
                ? "self-end border-r-[3px] border-soft bg-wash"
                : "border-l-[3px] border-accent bg-sheet"
            }`}
          >
            {message.text}
            <Time at={message.at} className="block font-sans text-xs text-soft" />
          </li>
        ))}
        {(phone?.messages.length ?? 0) === 0 && (
          <li className="py-4 text-soft">{t("nothingIsOnThisPhoneYet")}</li>
        )}
      </ol>
      {numbers.length === 0 ? (
        <p className="mt-3 text-sm text-soft">{t("weHaveNoNumberYetA")}</p>
      ) : (
        <fetcher.Form
          key={phone?.messages.length ?? 0}
          method="post"
          action={`/outside/phones/${encodeURIComponent(number || "-")}/write`}
          className="mt-3 flex flex-col gap-2 border-t border-line pt-3 text-sm"
        >
          <input type="hidden" name="back" value={back} />
          {phone === null && (
            <label className="flex flex-col gap-0.5">
              {t("fromTheNumber")}
              <input
                type="tel"
                className="lined-field"
                value={own}
                placeholder="+44 7700 900461"
                onChange={(event) => setOwn(event.target.value)}
              />
            </label>
          )}
          <label className="flex flex-col gap-0.5" htmlFor="phone-to">
            {t("to")}
          </label>
          <Select
            id="phone-to"
            name="to"
            value={chosen}
            options={numbers.map((one) => [one.number, `${one.team}, ${one.number}`] as const)}
            onChange={setTo}
          />
          <label className="flex flex-col gap-0.5">
            {t("shortMessage")}
            <textarea name="text" rows={3} maxLength={4000} className="boxed-field font-serif text-letter" />
          </label>
          <Button type="submit" look="quiet" className="self-start" disabled={fetcher.state !== "idle"}>
            {t("sendIt")}
          </Button>
          <FormProblem words={fetcher.data?.problem ?? undefined} />
        </fetcher.Form>
      )}
    </Shell>
  );
}

/** As wide as a phone. */
function Shell({ children }: { children: ReactNode }) {
  return (
    <section
      aria-label={t("phone")}
      className="flex w-full max-w-[22rem] flex-col self-start border border-line bg-desk p-4 max-h-[44rem] min-h-[28rem]"
    >
      {children}
    </section>
  );
}
