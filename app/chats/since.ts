/** A short time in words: `40 s`, `1 min 10 s`, `12 min`. @param milliseconds below none counts as none */
export function since(milliseconds: number): string {
  const seconds = Math.max(0, Math.floor(milliseconds / 1000));
  if (seconds < 60) return `${seconds} s`;
  const minutes = Math.floor(seconds / 60);
  return minutes >= 5 || seconds % 60 === 0 ? `${minutes} min` : `${minutes} min ${seconds % 60} s`;
}
