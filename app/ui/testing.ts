import { TextDecoder, TextEncoder } from "node:util";

/** What browsers have and jsdom has not, for tests of the interface's parts. */
if (typeof window !== "undefined") {
  Object.assign(globalThis, { TextDecoder, TextEncoder });
  Object.assign(window.HTMLElement.prototype, {
    scrollIntoView: () => undefined,
    hasPointerCapture: () => false,
    releasePointerCapture: () => undefined,
  });
  const nothing = () => undefined;
  Object.assign(window.Range.prototype, {
    getClientRects: () => [],
    getBoundingClientRect: () => new window.DOMRect(),
  });
  // Nothing is laid out here.
  window.ResizeObserver = class {
    observe = nothing;
    unobserve = nothing;
    disconnect = nothing;
  };
}
