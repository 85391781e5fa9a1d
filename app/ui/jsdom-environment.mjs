import { TestEnvironment } from "jest-environment-jsdom";

/** Two ports (HTML Standard), of which what the second is given reaches the first behind what runs now. */
class PageChannel {
  port1 = { onmessage: null, close: () => (this.port1.onmessage = null) };
  port2 = { postMessage: (data) => void setTimeout(() => this.port1.onmessage?.({ data })) };
}

/** A page as jsdom makes it, with what browsers have for requests (Fetch Standard) and jsdom does not. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    Object.assign(this.global, { fetch, Headers, Request, Response, AbortController, AbortSignal });
    this.global.MessageChannel = PageChannel;
  }
}
