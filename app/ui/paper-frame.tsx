import { useEffect, useRef } from "react";

/** A letter's HTML as an email program shows it, redrawn in place when it changes. */
export function PaperFrame({ title, html, className }: { title: string; html: string; className: string }) {
  const frame = useRef<HTMLIFrameElement>(null);
  const write = () => {
    const paper = frame.current?.contentDocument;
    // Before the paper arrives the frame holds an empty page of this screen's own policy, which allows no inline styles.
    if (paper?.readyState === "complete" && paper.URL !== "about:blank")
      paper.documentElement.innerHTML = html;
  };
  useEffect(write);
  return (
    <iframe
      ref={frame}
      title={title}
      src="/paper"
      sandbox="allow-same-origin"
      className={className}
      onLoad={write}
    />
  );
}
