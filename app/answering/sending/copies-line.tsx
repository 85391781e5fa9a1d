import { X } from "lucide-react";
import { useState } from "react";
import { answerAll, isAlone, noCopies, type Copies } from "#core/mail/copies";
import type { OpenCase } from "#server/answering/open";
import type { AnswerHandle } from "../use-answer";
import { AddressPicker } from "./address-picker";
import { t } from "../../words/answering";

type List = "to" | "cc" | "bcc";

const lists = (): [List, string][] => [
  ["to", t("alsoTo")],
  ["cc", t("copyTo")],
  ["bcc", t("copyUnseenTo")],
];

/** Whom the letter goes to besides: more of them, copies, copies that nobody sees, and where answers to it go. */
export function CopiesLine({ open, answer }: { open: OpenCase; answer: AnswerHandle }) {
  const { copies, setCopies } = answer;
  const [isOpen, setOpen] = useState(false);
  const now: Copies = copies ?? noCopies;
  const inbound = open.messages.findLast((one) => one.direction === "in");
  const all = inbound
    ? answerAll(
        { from: inbound.fromAddress, to: inbound.copies?.to ?? [], cc: inbound.copies?.cc ?? [] },
        answer.to?.address ?? open.recipient,
        new Set(open.ours),
      )
    : noCopies;
  const put = (next: Copies) => setCopies(isAlone(next) ? null : next);
  const add = (list: List, address: string) => {
    if (!now[list].includes(address)) put({ ...now, [list]: [...now[list], address] });
  };
  const shown = isOpen || !isAlone(now);
  return (
    <>
      {shown &&
        lists().map(([list, label]) => (
          <div key={list} className="contents">
            <dt className="text-sm text-soft">{label}</dt>
            <dd className="flex flex-wrap items-baseline gap-x-2 gap-y-1">
              {now[list].map((address) => (
                <span
                  key={address}
                  className="inline-flex items-baseline gap-1 border-b border-line [overflow-wrap:anywhere]"
                >
                  {address}
                  {!open.familiar.includes(address) && (
                    <span className="text-xs text-look">{t("isNewHere")}</span>
                  )}
                  <button
                    type="button"
                    aria-label={t("leaveAddressOut", { address })}
                    className="self-center text-soft hover:text-ink"
                    onClick={() => put({ ...now, [list]: now[list].filter((one) => one !== address) })}
                  >
                    <X size={12} aria-hidden="true" />
                  </button>
                </span>
              ))}
              <AddressPicker label={t("addTo", { list: label })} onAdd={(address) => add(list, address)} />
            </dd>
          </div>
        ))}
      {shown && (
        <>
          <dt className="text-sm text-soft">{t("answersTo")}</dt>
          <dd className="flex flex-wrap items-baseline gap-x-2">
            {now.replyTo === null ? (
              <AddressPicker
                label={t("anotherAddressForAnswers")}
                onAdd={(replyTo) => put({ ...now, replyTo })}
              />
            ) : (
              <>
                {now.replyTo}
                <button
                  type="button"
                  aria-label={t("leaveAddressOut", { address: now.replyTo })}
                  className="self-center text-soft hover:text-ink"
                  onClick={() => put({ ...now, replyTo: null })}
                >
                  <X size={12} aria-hidden="true" />
                </button>
              </>
            )}
          </dd>
        </>
      )}
      {!shown && (
        <dd className="col-start-2 flex flex-wrap gap-x-4 text-sm text-soft">
          {!isAlone(all) && (
            <button type="button" className="underline underline-offset-2" onClick={() => put(all)}>
              {t("answerAllCount", { count: all.to.length + all.cc.length })}
            </button>
          )}
          <button type="button" className="underline underline-offset-2" onClick={() => setOpen(true)}>
            {t("copiesAndOthers")}
          </button>
        </dd>
      )}
    </>
  );
}
