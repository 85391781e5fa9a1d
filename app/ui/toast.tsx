import { X } from "lucide-react";
import { Toast as Radix } from "radix-ui";
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useEffectEvent,
  useRef,
  useState,
  type ReactNode,
} from "react";
import { useShortcut } from "./use-shortcut";
import { t } from "../words/ui";

/** A short message at the foot of the desk, with at most one thing to do about it. */
export interface ToastMessage {
  words: string;
  /** Stays until then (milliseconds since 1970) and counts down; without it, eight seconds. */
  until?: number;
  action?: { label: string; run: () => void };
  tone?: "plain" | "stop";
}

const ToastContext = createContext<(toast: ToastMessage) => void>(() => undefined);
type Undo = () => void;
const LastUndoContext = createContext<(undo: Undo | null) => void>(() => undefined);

/** What Alt+Z takes back on a screen once no notice offers it any more; null for nothing. */
export function useLastUndo(undo: Undo | null): void {
  const offer = useContext(LastUndoContext);
  useEffect(() => {
    offer(undo);
    return () => offer(null);
  }, [offer, undo]);
}

/** Shows a toast beside those that are there; one that says the same as another takes its place. */
export function useToast(): (toast: ToastMessage) => void {
  return useContext(ToastContext);
}

const USUAL_MS = 8000;

type Shown = ToastMessage & { id: number };

/** Holds the messages at the foot: several at once, each with its own time; Alt+Z does what the latest offers. */
export function ToastProvider({ children }: { children: ReactNode }) {
  const [toasts, setToasts] = useState<Shown[]>([]);
  const lastId = useRef(0);
  const lastUndo = useRef<Undo | null>(null);
  const offerUndo = useCallback((undo: Undo | null) => {
    lastUndo.current = undo;
  }, []);
  const show = useCallback((toast: ToastMessage) => {
    const id = ++lastId.current;
    setToasts((others) => [
      ...others.filter(({ words, action }) => words !== toast.words || action !== undefined),
      { ...toast, id },
    ]);
  }, []);
  const close = useCallback((id: number) => setToasts((all) => all.filter((one) => one.id !== id)), []);

  const latest = toasts.findLast(({ action }) => action !== undefined);
  useShortcut("undo", () => {
    if (!latest) {
      lastUndo.current?.();
      return;
    }
    close(latest.id);
    latest.action?.run();
  });

  return (
    <ToastContext value={show}>
      <LastUndoContext value={offerUndo}>
        <Radix.Provider label={t("notice")} swipeDirection="down" duration={USUAL_MS}>
          {children}
          {toasts.map((toast) => (
            <ToastSheet
              key={toast.id}
              toast={toast}
              keys={toast === latest ? "Alt Z" : null}
              onClose={() => close(toast.id)}
            />
          ))}
          <Radix.Viewport
            label={t("noticesHotkey")}
            className="fixed inset-x-0 bottom-4 z-50 mx-auto flex w-fit max-w-[calc(100vw-2rem)] flex-col items-center gap-2 outline-none"
          />
        </Radix.Provider>
      </LastUndoContext>
    </ToastContext>
  );
}

function ToastSheet({
  toast,
  keys,
  onClose,
}: {
  toast: ToastMessage;
  keys: string | null;
  onClose: () => void;
}) {
  const { words, until, action, tone } = toast;
  const sheet = useRef<HTMLLIElement>(null);
  const kept = useRef(false);
  return (
    <Radix.Root
      ref={sheet}
      open
      type={tone === "stop" || action ? "foreground" : "background"}
      // What has an end of its own keeps to it, also while the pointer rests on it.
      duration={until === undefined ? USUAL_MS : Infinity}
      onEscapeKeyDown={({ target }) => {
        kept.current = !(target instanceof Node && sheet.current?.parentElement?.contains(target));
      }}
      onOpenChange={() => {
        // Escape belongs to what the hand is in: a letter can still be called back after it.
        if (!kept.current) onClose();
        kept.current = false;
      }}
      className={`flex items-center gap-4 rounded-sm px-4 py-2.5 text-sheet shadow-md ${tone === "stop" ? "bg-stop" : "bg-ink"}`}
    >
      <Radix.Description>
        {words}
        {until !== undefined && <SecondsLeft until={until} onEnd={onClose} />}
      </Radix.Description>
      {action && (
        <Radix.Action
          altText={t("actionAltZ", { action: action.label })}
          className="quiet-link shrink-0"
          onClick={() => action.run()}
        >
          {action.label}
          {keys && <kbd className="ml-2 font-sans text-xs opacity-80">{keys}</kbd>}
        </Radix.Action>
      )}
      <Radix.Close
        aria-label={t("closeTheNotice")}
        className="-mr-2 shrink-0 p-1 opacity-80 hover:opacity-100"
      >
        <X size={16} aria-hidden="true" />
      </Radix.Close>
    </Radix.Root>
  );
}

function SecondsLeft({ until, onEnd }: { until: number; onEnd: () => void }) {
  const [now, setNow] = useState(() => Date.now());
  const tick = useEffectEvent(() => {
    setNow(Date.now());
    if (Date.now() >= until) onEnd();
  });
  useEffect(() => {
    const timer = setInterval(() => tick(), 250);
    return () => clearInterval(timer);
  }, []);
  return (
    <span data-radix-toast-announce-exclude="" className="ml-2 tabular-nums opacity-80">
      {t("valueS", { value: Math.max(0, Math.ceil((until - now) / 1000)) })}
    </span>
  );
}
