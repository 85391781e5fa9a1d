/** A value with the keys of its objects the other way round, as another store may keep them. */
export function reversedKeys<Value>(value: Value): Value {
  return JSON.parse(JSON.stringify(value), (_key, inner: unknown) =>
    typeof inner === "object" && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).reverse())
      : inner,
  ) as Value;
}
