import { useState } from "react";
import * as z from "zod/mini";
import { addressee } from "#core/checks/addressee";
import type { OpenCase } from "#server/answering/open";
import { useAct } from "../../ui/act";
import { useToast } from "../../ui/toast";
import type { AnswerHandle } from "../use-answer";
import { RadioGroup } from "../../ui/radio-group";
import { t } from "../../words/answering";

/** To whom the letter goes: an address of the customer's, unless the agent chooses another and confirms it. */
export function RecipientLine({ open, answer }: { open: OpenCase; answer: AnswerHandle }) {
  const { to, setTo } = answer;
  const [choosing, setChoosing] = useState(false);
  const { recipient, standing } = addressee({ usual: open.recipient, all: open.recipients }, to);
  const others = open.recipients.some((one) => one.address !== recipient);
  return (
    <>
      <dt className="text-sm text-soft">{t("to")}</dt>
      <dd className="flex flex-wrap items-baseline gap-x-3 [overflow-wrap:anywhere]">
        {recipient === null ? (
          <strong id="recipient" tabIndex={-1} className="text-stop">
            {t("noAddressIsKnown")}
          </strong>
        ) : (
          <span id="recipient" tabIndex={-1}>
            {standing.is === "known" && `${open.customer.name}, `}
            {recipient}
          </span>
        )}
        {others && !choosing && (
          <button
            type="button"
            className="text-sm text-soft underline underline-offset-2"
            onClick={() => setChoosing(true)}
          >
            {t("anotherAddress")}
          </button>
        )}
        {choosing && (
          <fieldset className="basis-full border-l border-line pl-3 text-sm">
            <legend className="sr-only">{t("whereTheLetterGoes")}</legend>
            <RadioGroup
              label={t("address")}
              value={recipient ?? ""}
              options={open.recipients.map((one) => ({
                value: one.address,
                disabled: one.is === "ours",
                words: (
                  <>
                    {one.address}
                    <span className="block text-soft">
                      {one.is === "known" ? `${open.customer.name}’s` : one.news}
                    </span>
                  </>
                ),
              }))}
              onChange={(address) => {
                setTo(address === open.recipient ? null : { address, confirmed: false });
                setChoosing(false);
              }}
            />
            <button type="button" className="quiet-link" onClick={() => setChoosing(false)}>
              {t("leaveItSo")}
            </button>
          </fieldset>
        )}
        {recipient !== null && standing.is === "new" && (
          <NewAddress
            open={open}
            address={recipient}
            news={standing.news}
            confirmed={standing.confirmed}
            onConfirm={() => setTo({ address: recipient, confirmed: true })}
          />
        )}
      </dd>
    </>
  );
}

const kept = z.object({ address: z.string() });

/** What is new about an address, and what to make of it: for this letter, or for good. */
function NewAddress({
  open,
  address,
  news,
  confirmed,
  onConfirm,
}: {
  open: OpenCase;
  address: string;
  news: string | null;
  confirmed: boolean;
  onConfirm: () => void;
}) {
  const toast = useToast();
  const act = useAct();
  const keep = async () => {
    const done = await act(`/cases/${open.number}/addresses`, { address }, kept);
    if (!done.ok) toast({ words: done.problem, tone: "stop" });
  };
  return (
    <p
      role="note"
      className={`basis-full border-l-[3px] px-2.5 py-1 text-sm ${confirmed ? "border-line text-soft" : "border-stop bg-stop-wash"}`}
    >
      {news ?? t("addressIsNotKnownToBe", { address, customer: open.customer.name })}{" "}
      {confirmed ? (
        t("youConfirmedItForThisLetter")
      ) : (
        <button type="button" className="quiet-link" onClick={onConfirm}>
          {t("sendThisLetterThere")}
        </button>
      )}{" "}
      <button type="button" className="quiet-link" onClick={() => void keep()}>
        {t("itIsCustomerSKeepIt", { customer: open.customer.name })}
      </button>
    </p>
  );
}
