import type { ButtonHTMLAttributes } from "react";
import { Kbd } from "./kbd";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: "filled" | "quiet";
  /** The shortcut that does the same, shown beside it. */
  keys?: string;
  /** False where pressing it would only tell what is in the way: it looks so, and can be pressed all the same. */
  ready?: boolean;
}

/** The one button: filled for what the screen is for, quiet for the rest. */
export function Button({ look = "filled", keys, ready = true, className = "", children, ...rest }: Props) {
  const style =
    look === "filled"
      ? "rounded-sm bg-accent px-3.5 py-2 font-semibold text-on-accent disabled:opacity-50"
      : "quiet-link px-0.5 disabled:opacity-50";
  return (
    <span className="inline-flex items-center gap-2">
      <button
        type="button"
        {...rest}
        data-ready={ready}
        className={`${style} ${ready ? "" : "opacity-50"} ${className}`}
      >
        {children}
      </button>
      {keys && <Kbd keys={keys} />}
    </span>
  );
}
