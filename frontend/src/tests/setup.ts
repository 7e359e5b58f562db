/** In a browser a request may name a path alone; here it is one of a server that is none. */
const Plain = globalThis.Request;

globalThis.Request = class extends Plain {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === "string" ? new URL(input, "http://bench.invalid") : input, init);
  }
};
