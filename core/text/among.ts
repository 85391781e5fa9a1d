/** Whether a value is one of a list, which stands for any when it is empty; null, where it is not known, is one of any alone. */
export function isAmong<Value>(list: readonly Value[], value: Value | null): boolean {
  return list.length === 0 || list.some((one) => one === value);
}
