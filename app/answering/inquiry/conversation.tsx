import { useState } from "react";
import { Form, Link } from "react-router";
import { bareSubject } from "#core/mail/subject";
import type { ConversationMessage } from "#server/cases/conversation";
import type { OpenCase } from "#server/answering/open";
import { fileSize, listed, times } from "#core/text/counted";
import { Time } from "../../ui/time";
import { Disclosure } from "../../ui/disclosure";
import { MessageMenu } from "../changes/menus";
import { ByRule } from "./by-rule";
import { t } from "../../words/answering";
import { Sentence } from "../../words/sentence";

/** The messages of a case, oldest first; the latest is what the answer is to. */
export function Conversation({ open }: { open: OpenCase }) {
  const { messages, earlier } = open;
  return (
    <section aria-label={t("conversation")} className="mt-4">
      {earlier > 0 && (
        <p className="mb-3 text-sm">
          <Link to={`?earlier=${open.pages + 1}`} className="quiet-link">
            {t("countEarlierMessages", { count: earlier })}
          </Link>
        </p>
      )}
      {messages.map((message, index) => (
        <Message
          key={message.id}
          message={message}
          customer={open.customer.name}
          about={open.messages[index - 1]?.subject ?? open.subject}
          latest={index === messages.length - 1}
          open={open}
          first={index === 0 && earlier === 0}
        />
      ))}
      {messages.length === 0 && <p className="text-soft">{t("nothingHasBeenSaidYet")}</p>}
    </section>
  );
}

const stateWords = (): Record<ConversationMessage["state"], string> => ({
  received: "",
  due: t("leavesInAMoment"),
  sending: t("isBeingDelivered"),
  sent: t("delivered"),
  refused: t("wasRefused"),
  "called back": t("wasCalledBack"),
});

function Message({
  message,
  customer,
  about,
  latest,
  open,
  first,
}: {
  message: ConversationMessage;
  customer: string;
  /** The subject before: another one is shown. */
  about: string;
  latest: boolean;
  open: OpenCase;
  first: boolean;
}) {
  const [view, setView] = useState<"text" | "html" | "remote">("text");
  const ours = message.direction === "out";
  const files = message.files.filter((file) => !file.inline || ours);
  return (
    <article
      aria-label={ours ? t("ourAnswerByFrom", { from: message.from }) : t("fromFrom", { from: message.from })}
      className={`mb-4 ${ours ? "border-l-2 border-accent pl-4" : ""}`}
    >
      {message.subject !== "" && bareSubject(message.subject) !== bareSubject(about) && (
        <h2 className="mb-1 font-semibold [overflow-wrap:anywhere]">{message.subject}</h2>
      )}
      <Sender message={message} customer={customer} />
      {message.byRule ? <ByRule rule={message.byRule} /> : <Besides message={message} />}
      {view === "text" ? (
        <div className={`letter whitespace-pre-wrap ${latest || ours ? "" : "text-soft"}`}>
          {message.written ||
            (message.hasHtml ? t("thisMessageHasOnlyFormattedText") : t("thisMessageHasNoWords"))}
        </div>
      ) : (
        <HtmlFrame id={message.id} remote={view === "remote"} />
      )}
      {message.cut && (
        <p className="mt-1 text-sm text-look">
          <Sentence
            of={t}
            name="thisIsOnlyTheBeginningThe"
            parts={[
              <Link key="0" reloadDocument to={`/messages/${message.id}/raw`} className="quiet-link" />,
            ]}
          />
        </p>
      )}
      {message.quoted && view === "text" && (
        <Disclosure
          words={<span className="font-normal text-soft">{t("quotedText")}</span>}
          className="mt-1 text-sm"
        >
          <div className="letter mt-1 border-l border-line pl-3 whitespace-pre-wrap text-soft">
            {message.quoted}
          </div>
        </Disclosure>
      )}
      {files.length > 0 && (
        <ul aria-label={t("files")} className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm">
          {files.map((file) => (
            <li key={file.id}>
              <FileLink file={file} /> <span className="text-soft">{fileSize(file.size)}</span>
            </li>
          ))}
        </ul>
      )}
      <p className="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm text-soft">
        <span>
          {ours ? message.from : message.from === customer ? "" : `${message.from}, `}
          {ours && ", "}
          <Time at={message.at} />
          {ours &&
            `, ${message.deliveredAt !== null && message.state === "sent" ? t("hasArrived") : stateWords()[message.state]}`}
        </span>
        {message.hasHtml && !ours && (
          <button
            type="button"
            className="underline underline-offset-2"
            onClick={() => setView(view === "text" ? "html" : "text")}
          >
            {view === "text" ? t("asItWasFormatted") : t("asPlainText")}
          </button>
        )}
        {view === "html" && (
          <button type="button" className="underline underline-offset-2" onClick={() => setView("remote")}>
            {t("loadRemotePictures")}
          </button>
        )}
        {ours && message.kind === "message" && (
          <Link to={`/replies/new?message=${message.id}`} className="underline underline-offset-2">
            {t("keepOnAShelf")}
          </Link>
        )}
        {ours && (message.kind === "message" || message.kind === "notice") && (
          <Link
            to={`/cases/${open.number}/record?message=${message.id}`}
            className="underline underline-offset-2"
          >
            {t("whereItsWordsCameFrom")}
          </Link>
        )}
        {message.hasRaw && (
          <a href={`/messages/${message.id}/raw`} className="underline underline-offset-2">
            {t("raw")}
          </a>
        )}
        <MessageMenu open={open} message={message} first={first} />
      </p>
      <Trouble message={message} />
    </article>
  );
}

/** A file of a message. A program is asked about first: who opens it runs it. */
function FileLink({ file }: { file: ConversationMessage["files"][number] }) {
  const [asking, setAsking] = useState(false);
  const href = `/files/${file.id}`;
  if (!file.isProgram)
    return (
      <a href={href} target="_blank" rel="noreferrer" className="quiet-link">
        {file.name}
      </a>
    );
  return asking ? (
    <span role="alert" className="border-l-[3px] border-stop bg-stop-wash px-2 py-1">
      <Sentence
        of={t}
        name="fileIsAProgramOrMay"
        values={{ file: file.name }}
        parts={[
          <Link key="0" reloadDocument to={href} className="quiet-link" onClick={() => setAsking(false)} />,
          <button key="1" type="button" className="quiet-link" onClick={() => setAsking(false)} />,
        ]}
      />
    </span>
  ) : (
    <button type="button" className="quiet-link text-look" onClick={() => setAsking(true)}>
      {file.name}
    </button>
  );
}

/** What is to know of who wrote: a stranger on the case, another address for answers, doubts about the sender. */
function Sender({ message, customer }: { message: ConversationMessage; customer: string }) {
  const lines = [
    message.stranger
      ? t("fromFromaddressWhichIsNotKnown", { fromAddress: message.fromAddress, customer })
      : null,
    message.replyTo ? t("asksForAnswersToReplyto", { replyTo: message.replyTo }) : null,
    ...message.doubts.map(({ kind, words }) =>
      kind !== "authentication" ? words : t("ourReceiverFoundWords", { words }),
    ),
  ].filter((line) => line !== null);
  if (lines.length === 0) return null;
  return (
    <p role="note" className="mb-1.5 border-l-[3px] border-look bg-look-wash px-2.5 py-1 text-sm text-look">
      {lines.map((line) => (
        <span key={line} className="block [overflow-wrap:anywhere]">
          {line}
        </span>
      ))}
    </p>
  );
}

/** What a message is beside somebody's words: what a program wrote, whom it went to besides, what is in it. */
function Besides({ message }: { message: ConversationMessage }) {
  const { kind, copies, parts } = message;
  const others = [...(copies?.to ?? []), ...(copies?.cc ?? [])];
  const lines = [
    kind === "automatic"
      ? t("aProgramWroteThis")
      : kind === "list"
        ? t("thisWentToAList")
        : kind === "failure"
          ? t("thisReportsThatALetter")
          : kind === "pressed"
            ? t("theyPressedThis")
            : kind === "forwarded"
              ? t("thisForwardsAMessage", { to: message.toAddress })
              : kind === "notice"
                ? t("thisIsANotice")
                : null,
    others.length > 0 ? t("wentToOthersToo", { others: listed(others) }) : null,
    copies && copies.bcc.length > 0 ? t("wentUnseenTo", { others: listed(copies.bcc) }) : null,
    ...parts.map((part) =>
      part.kind === "signed"
        ? t("isSignedBy", { by: part.by })
        : part.kind === "encrypted"
          ? t("isEncryptedBy", { by: part.by })
          : null,
    ),
  ].filter((line) => line !== null);
  const invitations = parts.filter((part) => part.kind === "invitation");
  if (lines.length + invitations.length === 0) return null;
  return (
    <div className="mb-1.5 border-l-[3px] border-line px-2.5 py-1 text-sm text-soft">
      {lines.map((line) => (
        <p key={line} className="[overflow-wrap:anywhere]">
          {line}
        </p>
      ))}
      {invitations.map((part) => (
        <p key={`${part.what}${part.from}`} className="text-ink">
          {part.method === "CANCEL" ? t("aDateIsCalledOff") : t("invitesTo")} <strong>{part.what}</strong>
          {part.from !== null && (
            <>
              , <Time at={part.from} />
            </>
          )}
          {part.where !== null && `, ${part.where}`}
          {part.organiser !== null && ` (${part.organiser})`}
        </p>
      ))}
    </div>
  );
}

/** What stands between our letter and the customer, in the other server's words. */
function Trouble({ message }: { message: ConversationMessage }) {
  if (message.refusal === null) return null;
  if (message.state === "sent")
    return (
      <p className="mt-1 text-sm font-semibold text-look">
        {t("theOtherServerSays", { refusal: message.refusal })}
      </p>
    );
  if (message.state !== "refused") {
    return (
      <p className="mt-1 text-sm font-semibold text-look">
        {t("notDeliveredYetTriedAttemptsRefusal", {
          attempts: times(message.attempts),
          refusal: message.refusal,
        })}
      </p>
    );
  }
  return (
    <Form
      method="post"
      action={`/messages/${message.id}/try-again`}
      className="mt-1.5 border-l-[3px] border-stop bg-stop-wash px-3 py-2"
    >
      <p className="font-semibold text-stop">{t("refusedRefusal", { refusal: message.refusal })}</p>
      <button type="submit" className="quiet-link mt-1.5">
        {t("tryAgain")}
      </button>
    </Form>
  );
}

/** Inbound HTML, cleaned, in a frame without scripts; it grows to its content. */
function HtmlFrame({ id, remote }: { id: number; remote: boolean }) {
  return (
    <iframe
      title={t("theMessageAsItWasFormatted")}
      src={`/messages/${id}/html${remote ? "?pictures=remote" : ""}`}
      sandbox="allow-same-origin allow-popups allow-popups-to-escape-sandbox"
      className="h-40 w-full border border-line bg-white"
      onLoad={(event) => {
        const frame = event.currentTarget;
        const height = frame.contentDocument?.documentElement.scrollHeight ?? 160;
        frame.style.height = `${Math.min(1200, height + 4)}px`;
      }}
    />
  );
}
