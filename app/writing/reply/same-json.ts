/** Whether two values are the same as JSON, in whatever order their keys come: PostgreSQL keeps an order of its own. */
export function sameJson(one: unknown, other: unknown): boolean {
  return one === other || JSON.stringify(sortedKeys(one)) === JSON.stringify(sortedKeys(other));
}

function sortedKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sortedKeys);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, sortedKeys(inner)]),
  );
}
