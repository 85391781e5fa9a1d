import type { ReactNode } from "react";
import { Link } from "react-router";
import type { ProofRun } from "#core/compose/proof";
import { fitWords } from "#core/ranking/fit-words";
import type { FactProof, Proof, ProvenReply, RecordedMessage } from "#server/record/letter";
import { factWords } from "../setup/fact-value";
import { Time } from "../ui/time";
import { Sentence } from "../words/sentence";
import { t } from "../words/record";

interface Props {
  message: RecordedMessage;
  /** The words that were chosen; null for the whole message. */
  run: ProofRun | null;
  fact: FactProof | null;
  /** What the token of the words is called. */
  label: string | null;
}

/** Where the chosen words of a letter came from, or how all of it was made. */
export function Beside({ message, run, fact, label }: Props) {
  const { proof } = message;
  if (!proof) return null;
  const by = message.by ?? t("ofThem");
  const title = run ? t("whereItCameFrom", { words: shortened(run.text) }) : t("howItWasMade");
  return (
    <aside aria-label={title} className="min-h-0 py-3 text-[13px] md:overflow-y-auto">
      <h2 className="text-sm font-bold [overflow-wrap:anywhere]">{title}</h2>
      {run && (
        <p className="mt-1">
          <Link to={`?message=${message.id}`} preventScrollReset className="quiet-link">
            {t("allOfTheLetter")}
          </Link>
        </p>
      )}
      <div className="mt-2 [overflow-wrap:anywhere]">
        {run ? (
          <OfRun run={run} proof={proof} fact={fact} label={label} by={by} />
        ) : (
          <OfLetter proof={proof} />
        )}
        <SecondLook proof={proof} by={by} />
        <Offered proof={proof} />
        {fact?.otherwise.map((one) => (
          <Part key={one.message} title={t("otherwise")} isLook>
            {one.who === null ? (
              <Sentence
                of={t}
                name="customerWasTold"
                values={{ customer: one.customer, value: one.value }}
                parts={[<Time key="0" at={one.at} />]}
              />
            ) : (
              <Sentence
                of={t}
                name="nameTold"
                values={{ name: one.who, customer: one.customer, value: one.value }}
                parts={[<Time key="0" at={one.at} />]}
              />
            )}{" "}
            <Link
              to={`/cases/${one.case}/record?message=${one.message}`}
              className="underline underline-offset-2"
            >
              {t("thatLetter")}
            </Link>
          </Part>
        ))}
      </div>
    </aside>
  );
}

function OfRun({
  run,
  proof,
  fact,
  label,
  by,
}: { proof: Proof; by: string } & Pick<Props, "fact" | "label"> & { run: ProofRun }) {
  const reply = proof.replies.find((one) => one.slip === run.slip) ?? null;
  const traced = proof.trace.find(
    (one) => one.slip === run.slip && (one.name === run.name || `blank.${one.name}` === run.name),
  );
  const passages = (run.passages ?? []).flatMap((id) =>
    proof.trace.filter((one) => one.kind === "passage" && one.slip === run.slip && one.name === id),
  );
  return (
    <>
      {run.from === "token" && (
        <Part title={fact ? t("houseFact") : t("detail")}>
          <p>{label ?? run.name}</p>
          {fact?.then ? (
            <Fact then={fact.then} words={run.text} />
          ) : (
            traced && <p className="text-soft">{traced.why}</p>
          )}
        </Part>
      )}
      {run.from === "blank" && (
        <Part title={t("blank")}>
          <p>{label ?? run.name?.replace(/^blank\./, "").replaceAll("_", " ")}</p>
          <p className="text-soft">{t("filledInByName", { name: by })}</p>
        </Part>
      )}
      {run.from === "hand" && (
        <Part title={t("ownWords")}>
          <p>{t("writtenByName", { name: by })}</p>
          {reply && <p className="text-soft">{t("insteadOfReplys", { title: reply.title })}</p>}
        </Part>
      )}
      {run.from === "around" && (
        <Part title={t("around")}>
          {run.slip === "header"
            ? t("theHeader")
            : run.slip === "footer"
              ? t("theFooter")
              : t("theSignature")}
        </Part>
      )}
      {passages.map((one) => (
        <Part key={one.name} title={t("passage")}>
          {t("stoodBecause", { why: one.why })}
        </Part>
      ))}
      {reply && <Reply reply={reply} />}
    </>
  );
}

function Fact({ then, words }: { then: NonNullable<FactProof["then"]>; words: string }) {
  const day = <Time key="0" at={then.from} />;
  return (
    <>
      <p>
        {then.by === null ? (
          <Sentence of={t} name="setOn" values={{ words }} parts={[day]} />
        ) : (
          <Sentence of={t} name="setByOn" values={{ words, name: then.by }} parts={[day]} />
        )}
      </p>
      {then.before && (
        <p className="text-soft">{t("beforeThat", { words: factWords(then.before.value, then.type) })}</p>
      )}
    </>
  );
}

function OfLetter({ proof }: { proof: Proof }) {
  const out = proof.trace.filter((one) => one.kind === "passage" && one.value === "out");
  const subject = proof.trace.find((one) => one.kind === "subject");
  return (
    <>
      {proof.replies.length === 0 && (
        <Part title={t("reply")}>
          {t("noReplyWasUsed")} {proof.gap && t("gapNothingFitted")}
        </Part>
      )}
      {proof.replies.map((reply) => (
        <Reply key={reply.slip || reply.title} reply={reply} />
      ))}
      {out.map((one) => (
        <Part key={`${one.slip ?? ""} ${one.name}`} title={t("passage")}>
          {t("leftOutBecause", { why: one.why })}
        </Part>
      ))}
      {subject && <Part title={t("subjectLine")}>{subject.why}</Part>}
    </>
  );
}

function Reply({ reply }: { reply: ProvenReply }) {
  const { version, title, key } = reply;
  return (
    <Part title={t("reply")}>
      <p>
        {version?.number == null
          ? t("fromAnOlderLetter", { title })
          : t("versionOf", { title, version: version.number })}
      </p>
      {version?.publishedAt != null && (
        <p className="text-soft">
          {version.publishedBy === null ? (
            <Sentence of={t} name="publishedOn" parts={[<Time key="0" at={version.publishedAt} />]} />
          ) : (
            <Sentence
              of={t}
              name="publishedByOn"
              values={{ name: version.publishedBy }}
              parts={[<Time key="0" at={version.publishedAt} />]}
            />
          )}
        </p>
      )}
      {reply.rewritten !== null && reply.rewritten > 0 && (
        <p className="text-soft">{t("rewrittenShare", { share: percent(reply.rewritten) })}</p>
      )}
      {version && key !== null && (
        <p className="mt-0.5 flex flex-wrap gap-x-3">
          <Link
            to={`/record?reply=${encodeURIComponent(key)}&version=${version.id}`}
            className="underline underline-offset-2"
          >
            {t("lettersUsedIt", { count: reply.letters })}
          </Link>
          {reply.changed && (
            <Link
              to={`/replies/${encodeURIComponent(key)}/history?before=${version.id}`}
              className="underline underline-offset-2"
            >
              {t("compareWithTodays")}
            </Link>
          )}
        </p>
      )}
    </Part>
  );
}

function SecondLook({ proof, by }: { proof: Proof; by: string }) {
  return (
    <Part title={t("secondLook")}>
      {proof.checks.length === 0 ? (
        <span className="text-soft">{t("foundNothing")}</span>
      ) : (
        <>
          {proof.checks.map((check) => (
            <p key={check.code + check.message}>{check.message}</p>
          ))}
          <p className="text-soft">{t("nameWentOn", { name: by })}</p>
        </>
      )}
    </Part>
  );
}

function Offered({ proof }: { proof: Proof }) {
  return (
    <Part title={t("theShelfOffered")}>
      {proof.offers.length === 0 ? (
        <span className="text-soft">{t("nothingWasOffered")}</span>
      ) : (
        <ol>
          {proof.offers.map((offer, index) => {
            const fit = [offer.fit === null ? null : fitWords(offer.fit), offer.sent ? t("wasTaken") : null]
              .filter((one) => one !== null)
              .join(", ");
            return (
              <li key={index} className={offer.sent ? "" : "text-soft"}>
                {fit === "" ? offer.title : t("offeredAt", { title: offer.title, fit })}
              </li>
            );
          })}
        </ol>
      )}
    </Part>
  );
}

function Part({ title, isLook = false, children }: { title: string; isLook?: boolean; children: ReactNode }) {
  return (
    <section className={`border-t border-line py-2.5 ${isLook ? "text-look" : ""}`}>
      <h3 className="font-bold">{title}</h3>
      {children}
    </section>
  );
}

const percent = (share: number) =>
  new Intl.NumberFormat("en-GB", { style: "percent", maximumFractionDigits: 0 }).format(share);

/** The beginning of words that are many. */
function shortened(text: string): string {
  const words = text.trim().replace(/\s+/g, " ");
  return words.length <= 60 ? words : `${words.slice(0, 57).trimEnd()}…`;
}
