import { useState } from "react";
import * as z from "zod/mini";
import type { ConversationMessage } from "#server/cases/conversation";
import { listed } from "#core/text/counted";
import { useAct } from "../../ui/act";
import { Button } from "../../ui/button";
import { Checkbox } from "../../ui/checkbox";
import { Dialog, DialogFoot } from "../../ui/dialog";
import { FormProblem } from "../../ui/form";
import { useToast } from "../../ui/toast";
import { ChosenAddress } from "../sending/chosen-address";
import { t } from "../../words/answering";

const answer = z.union([
  z.object({ ok: z.literal(true), message: z.number(), dueAt: z.string() }),
  z.object({ ok: z.literal(false), ask: z.string() }),
]);

interface Props {
  message: ConversationMessage;
  onClose: () => void;
}

/** To whom a message is forwarded, with which words of ours, and whether with its files. */
export default function ForwardDialog({ message, onClose }: Props) {
  const [to, setTo] = useState<string | null>(null);
  const [words, setWords] = useState("");
  const [withFiles, setWithFiles] = useState(true);
  const [asks, setAsks] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | undefined>();
  const [busy, setBusy] = useState(false);
  const act = useAct();
  const toast = useToast();
  const callBack = async (id: number) => {
    const done = await act(`/messages/${id}/call-back`, {});
    toast(done.ok ? { words: t("itWasCalledBack") } : { words: done.problem, tone: "stop" });
  };
  const send = async () => {
    setBusy(true);
    const done = await act(
      `/messages/${message.id}/forward`,
      { to, words, withFiles, confirmed: asks !== null },
      answer,
    );
    setBusy(false);
    if (!done.ok) return setProblem(done.problem);
    if (!done.data.ok) return setAsks(done.data.ask);
    const id = done.data.message;
    toast({
      words: t("onItsWayToTo", { to: to ?? "" }),
      until: Date.parse(done.data.dueAt),
      action: { label: t("callItBack"), run: () => void callBack(id) },
    });
    onClose();
  };
  return (
    <Dialog title={t("forwardThisMessage")} words={t("theCaseWaitsAsItDid")} onClose={onClose}>
      <form
        className="mt-4 flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <p className="flex flex-wrap items-baseline gap-3">
          <span className="text-sm text-soft">{t("forwardTo")}</span>
          <ChosenAddress
            label={t("forwardToWhom")}
            chosen={to}
            onChoose={(address) => {
              setTo(address);
              setAsks(null);
              setProblem(undefined);
            }}
          />
        </p>
        <label className="flex flex-col gap-1 text-sm">
          {t("yourWordsAboveIt")}
          <textarea
            rows={4}
            maxLength={20_000}
            value={words}
            onChange={(event) => setWords(event.target.value)}
            className="boxed-field text-base"
          />
        </label>
        <blockquote className="max-h-40 overflow-y-auto border-l-2 border-line pl-3 text-sm whitespace-pre-wrap text-soft">
          {message.written || t("thisMessageHasNoWords")}
        </blockquote>
        {message.files.length > 0 && (
          <label className="flex items-baseline gap-2 text-sm">
            <Checkbox checked={withFiles} onChange={setWithFiles} />
            {t("withItsFiles", { files: listed(message.files.map((file) => file.name)) })}
          </label>
        )}
        {asks !== null && (
          <p role="alert" className="border-l-[3px] border-look bg-look-wash px-3 py-2 text-look">
            {asks}
          </p>
        )}
        <FormProblem words={problem} />
        <DialogFoot onCancel={onClose}>
          <Button type="submit" disabled={busy || to === null}>
            {asks === null ? t("forwardIt") : t("sendItAllTheSame")}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
