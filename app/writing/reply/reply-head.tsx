import { listed, times } from "#core/text/counted";
import { useCallback, useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import * as z from "zod/mini";
import type { OpenReply } from "#server/writing/open";
import { Button } from "../../ui/button";
import { Mark } from "../../ui/mark";
import { useAct } from "../../ui/act";
import { SaveWords } from "../../ui/save-words";
import { useSettledBeforeLeaving } from "../../ui/use-settled";
import { useToast } from "../../ui/toast";
import { useClock } from "../../ui/time";
import { useFieldKeys } from "../../ui/use-field-keys";
import { ReplyActs } from "./reply-acts";
import type { FilingHandle } from "./use-filing";
import { unpublished } from "./unpublished";
import type { ReplyHandle } from "./use-reply";
import { t } from "../../words/writing";
import { Sentence } from "../../words/sentence";

const done = z.object({ number: z.optional(z.number()) });

/** Where the reply stands, its title, and what is done with it when it is ready. */
export function ReplyHead({
  open,
  reply,
  filing,
}: {
  open: OpenReply;
  reply: ReplyHandle;
  filing: FilingHandle;
}) {
  const { content, change, saveState, settle, stop } = reply;
  const [asking, setAsking] = useState(false);
  const [remark, setRemark] = useState("");
  const remarkField = useFieldKeys({ leave: () => setAsking(false) });
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const act = useAct();
  const navigate = useNavigate();
  const toast = useToast();
  const what = open.mayPublish ? "publish" : "propose";
  const touched = open.revision > 0 || saveState !== "nothing";

  const send = async (
    what: "publish" | "propose" | "drop",
    body: object,
    words: (number: number | undefined) => string,
  ) => {
    setBusy(true);
    const result = await act(`/replies/${open.key}/${what}`, body, done);
    setBusy(false);
    if (!result.ok) {
      // Somebody was quicker: what they published is loaded, and both can be looked at.
      setProblem(result.problem);
      return;
    }
    stop();
    setProblem(null);
    setAsking(false);
    setRemark("");
    toast({ words: words(result.data.number) });
  };
  useSettledBeforeLeaving(
    reply.saver,
    useCallback(
      () =>
        toast({
          words: t("yourWordsCouldNotBeSaved"),
          tone: "stop",
        }),
      [toast],
    ),
  );
  const sendOff = async () => {
    // How it is filed goes along: what cannot be filed so is not thrown away.
    if (!(await filing.form.trigger(undefined, { shouldFocus: true }))) {
      setProblem(t("itCannotBeFiledAsYou"));
      return;
    }
    const revision = await settle();
    if (revision === null) {
      setProblem(t("itCouldNotBeSavedSo"));
      return;
    }
    await send(what, { revision, remark: remark.trim() || null }, (number) =>
      what === "publish"
        ? t("versionNumberIsOnTheShelf", { number: number ?? "" })
        : t("proposedACuratorWillLookAt"),
    );
  };
  const drop = async () => {
    await send("drop", {}, () => t("discardedItStaysInTheHistory"));
    if (open.published === null && open.state === "draft") await navigate("/shelves");
  };
  const named = useMemo(
    () =>
      touched
        ? unpublished(
            open.onShelf ?? (open.published ? open.content : null),
            content,
            open.filed,
            filing.filing,
          )
        : [],
    [touched, open, content, filing.filing],
  );
  const workingCopy = open.versions.find((version) => version.state === "draft" && version.mine);

  return (
    <header className="flex flex-col gap-1.5 px-6 pt-4">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <Link
          to={`/shelves?shelf=${encodeURIComponent(open.shelf.key)}`}
          className="flex items-baseline gap-2 text-sm text-soft hover:text-ink"
        >
          <Mark letters={open.shelf.mark} /> {open.shelf.name}
        </Link>
        <span className="text-sm text-soft">{stateWords(open)}</span>
        {named.length > 0 && (
          <span className="text-sm font-semibold text-look">
            {t("notPublishedYetNamed", { named: named.join(", ") })}
          </span>
        )}
        <span role="status" className="ml-auto text-sm text-soft">
          {reply.back && `${t("whatYouHadTypedIsBack")} `}
          <SaveWords state={saveState} />
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h1 className="sr-only">{content.title || t("untitledReply")}</h1>
        <input
          aria-label={t("title")}
          className="min-w-48 grow border-b border-transparent bg-transparent py-1 text-xl font-bold hover:border-line focus:border-ink focus:outline-none"
          value={content.title}
          maxLength={300}
          placeholder={t("title")}
          onChange={(event) => change((now) => ({ ...now, title: event.target.value }))}
        />
        {touched && !asking && (
          <>
            {open.versions.length > 1 || open.published
              ? workingCopy && (
                  <Link
                    to={`/replies/${open.key}/history?after=${workingCopy.id}`}
                    className="quiet-link text-sm"
                    onClick={() => void settle()}
                  >
                    {t("whatChanged")}
                  </Link>
                )
              : null}
            <button type="button" className="quiet-link text-sm" disabled={busy} onClick={() => void drop()}>
              {t("discard")}
            </button>
            <Button onClick={() => setAsking(true)}>
              {what === "publish" ? t("publish") : t("propose")}
            </Button>
          </>
        )}
        <ReplyActs open={open} />
      </div>
      {asking && (
        <form
          className="flex flex-wrap items-center gap-x-4 gap-y-2 border-l-[3px] border-ink py-1 pl-4"
          onSubmit={(event) => {
            event.preventDefault();
            void sendOff();
          }}
        >
          <input
            ref={remarkField}
            aria-label={t("remarkForTheHistory")}
            placeholder={t("whatChangedForTheHistory")}
            className="lined-field grow"
            autoFocus
            maxLength={2000}
            value={remark}
            onChange={(event) => setRemark(event.target.value)}
          />
          <Button type="submit" keys="Enter" disabled={busy}>
            {what === "publish" ? t("publish2") : t("propose2")}
          </Button>
          <button type="button" className="quiet-link text-sm" onClick={() => setAsking(false)}>
            {t("cancel")}
          </button>
        </form>
      )}
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
      <OwnProposal open={open} />
      {open.overtaken && open.published && (
        <p
          role="alert"
          className="flex flex-wrap gap-x-4 border-l-[3px] border-look bg-look-wash px-3 py-1.5 text-look"
        >
          {t("anotherVersionWasPublishedSinceYou")}
          {workingCopy && (
            <Link
              to={`/replies/${open.key}/history?after=${workingCopy.id}&before=${open.published.id}`}
              className="quiet-link"
            >
              {t("lookAtBoth")}
            </Link>
          )}
        </p>
      )}
    </header>
  );
}

/** How the viewer’s own proposal stands, while it is news to them. */
function OwnProposal({ open }: { open: OpenReply }) {
  const { now } = useClock();
  const own = open.versions.find((one) => one.mine && one.number !== null);
  if (!own || open.revision > 0) return null;
  const byOther = own.decidedBy !== null && own.decidedBy !== own.author;
  const look = `/replies/${open.key}/history?after=${own.id}`;
  if (own.state === "proposed")
    return (
      <p role="note" className="border-l-[3px] border-ink bg-wash px-3 py-1.5">
        <Sentence
          of={t}
          name="yourProposalWaitsToBeChecked"
          parts={[<Link key="0" to={look} className="quiet-link" />]}
        />
      </p>
    );
  if (own.state === "sent back" && byOther)
    return (
      <p role="note" className="border-l-[3px] border-look bg-look-wash px-3 py-1.5">
        {own.decidedBy} {t("sentYourProposalBack")} <span className="font-serif">“{own.decision}”</span>{" "}
        <Link to={look} className="quiet-link">
          {t("goOnWithIt")}
        </Link>
      </p>
    );
  if (own.state === "published" && byOther && isNews(own.decidedAt, now))
    return (
      <p role="note" className="border-l-[3px] border-ink bg-wash px-3 py-1.5">
        {own.decidedBy} {t("publishedYourProposal")}
        {own.decision && <span className="font-serif"> “{own.decision}”</span>}
      </p>
    );
  return null;
}

const NEWS_MS = 7 * 24 * 60 * 60 * 1000;

function isNews(at: string | null, now: number): boolean {
  return at !== null && now - Date.parse(at) < NEWS_MS;
}

function stateWords({ state, published, copiedFrom, others, uses }: OpenReply): string {
  const words = [
    state === "shelved" ? t("versionNumberOnTheShelf", { number: published?.number ?? 1 }) : state,
    uses === 0 ? null : t("usedUsesIn90Days", { uses: times(uses) }),
    copiedFrom ? t("begunFromCopiedfrom", { copiedFrom: copiedFrom.title }) : null,
    others.length > 0
      ? t(others.length === 1 ? "othersHasAWorkingCopyToo" : "othersHaveAWorkingCopyToo", {
          others: listed(others),
        })
      : null,
  ];
  return words.filter(Boolean).join(" · ");
}
