import { useCallback, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import type { OpenCase } from "#server/answering/open";
import { Time } from "../../ui/time";
import { useToast } from "../../ui/toast";
import { keptDraft, postDraft, savedDraft } from "./draft-saver";
import { t } from "../../words/answering";
import { Sentence } from "../../words/sentence";

/**
 * Words that this browser kept because they could not be stored: put back by themselves where nothing was written since,
 * else offered.
 * @param onBack called with the version of the draft that they are again
 */
export function KeptDraft({
  open,
  person,
  onBack,
}: {
  open: OpenCase;
  person: number;
  onBack: (version: number) => void;
}) {
  const [found, setFound] = useState<{ at: number; version: number } | null>(null);
  const toast = useToast();
  const { revalidate } = useRevalidator();
  const version = open.draft?.version ?? 0;

  const putBack = useCallback(async () => {
    const store = keptDraft(open.number, person);
    const kept = store.find();
    if (!kept) return;
    const response = await postDraft(open.number, { ...kept.kept.draft, version }).catch(() => null);
    const saved = response?.ok ? savedDraft.safeParse(await response.json()) : null;
    if (!saved?.success) {
      setFound(kept);
      return;
    }
    store.clear();
    setFound(null);
    onBack(saved.data.version);
    await revalidate();
    toast({ words: t("whatYouHadTypedHereIs") });
  }, [open.number, person, version, revalidate, onBack, toast]);

  // What was kept is looked at once, behind the first drawing: later the saver keeps here what it is about to store.
  const looked = useRef(false);
  useEffect(() => {
    const timer = setTimeout(() => {
      if (looked.current) return;
      looked.current = true;
      const kept = keptDraft(open.number, person).find();
      if (kept?.version === version) void putBack();
      else setFound(kept);
    });
    return () => clearTimeout(timer);
  }, [open.number, person, version, putBack]);

  if (!found) return null;
  return (
    <p role="note" className="border-b border-line bg-look-wash px-3 py-2 text-sm">
      <Sentence
        of={t}
        name="thisBrowserKeptWordsOfYours"
        parts={[
          <Time key="0" at={new Date(found.at).toISOString()} />,
          <button key="1" type="button" className="quiet-link" onClick={() => void putBack()} />,
          <button
            key="2"
            type="button"
            className="quiet-link"
            onClick={() => {
              keptDraft(open.number, person).clear();
              setFound(null);
            }}
          />,
        ]}
      />
    </p>
  );
}
