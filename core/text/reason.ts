/** What a fault says of itself, in one line, whatever was thrown. */
export function reasonOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
