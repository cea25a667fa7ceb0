import { configure } from "@testing-library/dom";
import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

import { FakeServer } from "./fakeServer";

// Files share the modules of the interface, and so the client, which keeps the `fetch` that it finds first.
const shared = globalThis as typeof globalThis & { fakeServer?: FakeServer };

/** Answers whatever the interface asks; a test begins with one that knows nothing. */
export const server = (shared.fakeServer ??= new FakeServer());
globalThis.fetch = (input, init) => server.fetch(input, init);

afterEach(() => {
  cleanup();
  server.reset();
  localStorage.clear();
});

configure({
  // A screen that is not as expected would be printed whole.
  getElementError: (message) => new Error(message ?? "not found"),
  // What is waited for comes at once; on a busy machine that is no reason to give up.
  asyncUtilTimeout: 10_000,
});
