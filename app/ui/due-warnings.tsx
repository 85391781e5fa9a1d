import { useEffect } from "react";
import { useNavigate } from "react-router";
import type { DueSoon } from "#server/cases/soon";
import { useToast } from "./toast";
import { t } from "../words/ui";

/** So long before its time passes a case is told of. */
const BEFORE_MS = 15 * 60_000;

/** Those that were told of, with the time that they had: a case whose time is another one is told of again. */
const told = new Set<string>();

/** Warns of the viewer's own cases before their time passes, wherever they are in the program. */
export function DueWarnings({ due }: { due: DueSoon[] }) {
  const toast = useToast();
  const navigate = useNavigate();
  const key = JSON.stringify(due);
  useEffect(() => {
    const timers = (JSON.parse(key) as DueSoon[]).map(({ number, label, answerBy }) => {
      const until = Date.parse(answerBy);
      return setTimeout(
        () => {
          const name = `${number} ${answerBy}`;
          const left = Math.ceil((until - Date.now()) / 60_000);
          if (told.has(name) || left <= 0) return;
          told.add(name);
          toast({
            words: t("isDueIn", { label, count: left }),
            tone: "stop",
            action: { label: t("openIt"), run: () => void navigate(`/cases/${number}`) },
          });
        },
        Math.max(0, until - BEFORE_MS - Date.now()),
      );
    });
    return () => timers.forEach(clearTimeout);
  }, [key, toast, navigate]);
  return null;
}
