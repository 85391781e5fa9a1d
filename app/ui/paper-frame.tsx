import { useEffect, useRef } from "react";

/** A letter's HTML as an email program shows it, redrawn in place when it changes. */
export function PaperFrame({ title, html, className }: { title: string; html: string; className: string }) {
  const frame = useRef<HTMLIFrameElement>(null);
  const write = () => {
    const root = frame.current?.contentDocument?.documentElement;
    if (root && frame.current?.contentDocument?.readyState === "complete") root.innerHTML = html;
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
