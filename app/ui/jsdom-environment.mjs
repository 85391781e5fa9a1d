import { TestEnvironment } from "jest-environment-jsdom";

/** A page as jsdom makes it, with what browsers have for requests (Fetch Standard) and jsdom does not. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    Object.assign(this.global, { fetch, Headers, Request, Response, AbortController, AbortSignal });
  }
}
