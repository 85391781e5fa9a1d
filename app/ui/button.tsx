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
      ? `rounded-sm border px-3.5 py-[7px] font-semibold disabled:opacity-50 ${ready ? "border-accent bg-accent text-on-accent" : "border-line bg-transparent text-soft"}`
      : `px-0.5 disabled:opacity-50 ${ready ? "quiet-link" : "text-soft"}`;
  return (
    <span className="inline-flex items-center gap-2">
      <button type="button" {...rest} data-ready={ready} className={`${style} ${className}`}>
        {children}
      </button>
      {keys && <Kbd keys={keys} />}
    </span>
  );
}
