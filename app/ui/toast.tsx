import { createContext, useCallback, useContext, useEffect, useRef, useState, type ReactNode } from "react";
import { useKeys } from "./use-keys";

/** A short message at the foot of the desk, with at most one thing to do about it. */
export interface ToastMessage {
  words: string;
  /** Stays until then (milliseconds since 1970) and counts down; without it, eight seconds. */
  until?: number;
  action?: { label: string; keys?: string; run: () => void };
  tone?: "plain" | "stop";
}

const ToastContext = createContext<(toast: ToastMessage | null) => void>(() => undefined);

/** Shows a toast; null takes it away. */
export function useToast(): (toast: ToastMessage | null) => void {
  return useContext(ToastContext);
}

const USUAL_MS = 8000;

export function ToastProvider({ children }: { children: ReactNode }) {
  const [toast, setToast] = useState<ToastMessage | null>(null);
  const [left, setLeft] = useState<number | null>(null);
  const shown = useRef<ToastMessage | null>(null);
  const show = useCallback((next: ToastMessage | null) => {
    shown.current = next;
    setToast(next);
    setLeft(next?.until === undefined ? null : Math.max(0, Math.ceil((next.until - Date.now()) / 1000)));
  }, []);

  useEffect(() => {
    if (!toast) return;
    const end = toast.until ?? Date.now() + USUAL_MS;
    const timer = setInterval(() => {
      if (Date.now() >= end) show(null);
      else if (toast.until !== undefined) setLeft(Math.ceil((end - Date.now()) / 1000));
    }, 250);
    return () => clearInterval(timer);
  }, [toast, show]);

  useKeys((event) => {
    if (event.altKey && event.key.toLowerCase() === "z" && shown.current?.action) {
      event.preventDefault();
      shown.current.action.run();
    }
  });

  return (
    <ToastContext value={show}>
      {children}
      <div
        role="status"
        aria-live="polite"
        className="pointer-events-none fixed inset-x-0 bottom-4 z-50 flex justify-center"
      >
        {toast && (
          <div
            className={`pointer-events-auto flex items-center gap-4 rounded-sm px-4 py-2.5 shadow-md ${toast.tone === "stop" ? "bg-stop text-sheet" : "bg-ink text-sheet"}`}
          >
            <span>
              {toast.words}
              {left !== null && <span className="ml-2 tabular-nums opacity-80">{left} s</span>}
            </span>
            {toast.action && (
              <button type="button" className="quiet-link" onClick={toast.action.run}>
                {toast.action.label}
                {toast.action.keys && (
                  <kbd className="ml-2 font-sans text-xs opacity-80">{toast.action.keys}</kbd>
                )}
              </button>
            )}
          </div>
        )}
      </div>
    </ToastContext>
  );
}
