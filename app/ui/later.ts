/** So long after a page is there what it may want next is fetched. */
const REST_MS = 1000;

/** Does something once the page is there and had a moment: what it shows comes first. @returns gives it up */
export function later(run: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const soon = () => {
    timer = setTimeout(run, REST_MS);
  };
  if (document.readyState === "complete") soon();
  else window.addEventListener("load", soon, { once: true });
  return () => {
    clearTimeout(timer);
    window.removeEventListener("load", soon);
  };
}
