import { useRef, type RefObject } from "react";
import { useShortcut } from "./use-shortcut";

/**
 * The keys of a field that opened for a few words.
 * @param keep called with what was typed, on Enter
 * @param leave called on Escape
 * @returns the ref of the field
 */
export function useFieldKeys({
  keep,
  leave,
}: {
  keep?: (typed: string) => void;
  leave?: () => void;
}): RefObject<HTMLInputElement | null> {
  const field = useRef<HTMLInputElement>(null);
  const within = field;
  useShortcut("keepField", () => keep?.(field.current?.value ?? ""), { within, enabled: keep !== undefined });
  useShortcut("leaveField", () => leave?.(), { within, enabled: leave !== undefined });
  return field;
}
