import type { ButtonHTMLAttributes } from "react";
import { Kbd } from "./kbd";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: "filled" | "quiet";
  /** The shortcut that does the same, shown beside it. */
  keys?: string;
}

/** The one button: filled for what the screen is for, quiet for the rest. */
export function Button({ look = "filled", keys, className = "", children, ...rest }: Props) {
  const style =
    look === "filled"
      ? "rounded-sm bg-accent px-3.5 py-2 font-semibold text-on-accent disabled:opacity-50"
      : "quiet-link px-0.5 disabled:opacity-50";
  return (
    <span className="inline-flex items-center gap-2">
      <button type="button" {...rest} className={`${style} ${className}`}>
        {children}
      </button>
      {keys && <Kbd keys={keys} />}
    </span>
  );
}
