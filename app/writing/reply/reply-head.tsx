import { times } from "#core/text/counted";
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
          words: "Your words could not be saved yet. They are kept in this browser: open the reply again.",
          tone: "stop",
        }),
      [toast],
    ),
  );
  const sendOff = async () => {
    // How it is filed goes along: what cannot be filed so is not thrown away.
    if (!(await filing.form.trigger(undefined, { shouldFocus: true }))) {
      setProblem("It cannot be filed as you set it, so nothing was sent off. Look under Filing.");
      return;
    }
    const revision = await settle();
    if (revision === null) {
      setProblem("It could not be saved, so nothing was sent off. Look at what is said beside the title.");
      return;
    }
    await send(what, { revision, remark: remark.trim() || null }, (number) =>
      what === "publish"
        ? `Version ${number ?? ""} is on the shelf.`
        : "Proposed. A curator will look at it.",
    );
  };
  const drop = async () => {
    await send("drop", {}, () => "Discarded. It stays in the history.");
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
          <span className="text-sm font-semibold text-look">not published yet: {named.join(", ")}</span>
        )}
        <span role="status" className="ml-auto text-sm text-soft">
          {reply.back && "What you had typed is back. "}
          <SaveWords state={saveState} />
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h1 className="sr-only">{content.title || "Untitled reply"}</h1>
        <input
          aria-label="Title"
          className="min-w-48 grow border-b border-transparent bg-transparent py-1 text-xl font-bold hover:border-line focus:border-ink focus:outline-none"
          value={content.title}
          maxLength={300}
          placeholder="Title"
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
                    what changed
                  </Link>
                )
              : null}
            <button type="button" className="quiet-link text-sm" disabled={busy} onClick={() => void drop()}>
              discard
            </button>
            <Button onClick={() => setAsking(true)}>{what === "publish" ? "Publish…" : "Propose…"}</Button>
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
            aria-label="Remark for the history"
            placeholder="What changed, for the history"
            className="lined-field grow"
            autoFocus
            maxLength={2000}
            value={remark}
            onChange={(event) => setRemark(event.target.value)}
          />
          <Button type="submit" keys="Enter" disabled={busy}>
            {what === "publish" ? "Publish" : "Propose"}
          </Button>
          <button type="button" className="quiet-link text-sm" onClick={() => setAsking(false)}>
            Cancel
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
          Another version was published since you began. Yours is kept.
          {workingCopy && (
            <Link
              to={`/replies/${open.key}/history?after=${workingCopy.id}&before=${open.published.id}`}
              className="quiet-link"
            >
              Look at both
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
        Your proposal waits to be checked.{" "}
        <Link to={look} className="quiet-link">
          what it changes
        </Link>
      </p>
    );
  if (own.state === "sent back" && byOther)
    return (
      <p role="note" className="border-l-[3px] border-look bg-look-wash px-3 py-1.5">
        {own.decidedBy} sent your proposal back: <span className="font-serif">“{own.decision}”</span>{" "}
        <Link to={look} className="quiet-link">
          go on with it
        </Link>
      </p>
    );
  if (own.state === "published" && byOther && isNews(own.decidedAt, now))
    return (
      <p role="note" className="border-l-[3px] border-ink bg-wash px-3 py-1.5">
        {own.decidedBy} published your proposal.
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
    state === "shelved" ? `version ${published?.number ?? 1} on the shelf` : state,
    uses === 0 ? null : `used ${times(uses)} in 90 days`,
    copiedFrom ? `begun from “${copiedFrom.title}”` : null,
    others.length > 0
      ? `${others.join(" and ")} ${others.length === 1 ? "has" : "have"} a working copy too`
      : null,
  ];
  return words.filter(Boolean).join(" · ");
}
