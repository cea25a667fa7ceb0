import createClient from "openapi-fetch";

import type { paths } from "./generated";

/** A refused request, in the words the server found for a person (problem+json, RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly sentence: string,
    readonly hint: string,
  ) {
    super(sentence);
    this.name = "Problem";
  }
}

const OFFLINE = new Problem(0, "offline", "Tall Page does not answer.", "Check that it is still running, then try again.");

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

export async function problemOf(response: Response): Promise<Problem> {
  if (response.status === 401) window.location.assign(`/account/sign-in?next=${encodeURIComponent(window.location.pathname)}`);
  try {
    const body = (await response.json()) as { code?: string; title?: string; detail?: string };
    return new Problem(response.status, body.code ?? "unknown", body.title ?? response.statusText, body.detail ?? "");
  } catch {
    return new Problem(response.status, "unknown", `The server answered ${response.status}.`, "Try again.");
  }
}

export const api = createClient<paths>({ baseUrl: "/", credentials: "same-origin" });

api.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
  async onResponse({ response }) {
    if (!response.ok) throw await problemOf(response);
    return response;
  },
  onError() {
    return OFFLINE;
  },
});

/** The body of an answer that was not refused. */
export async function answered<T>(call: Promise<{ data?: T }>): Promise<T> {
  const { data } = await call;
  return data as T;
}

/** Send a form with a file. Its own function, since the body is not JSON. */
export async function sendForm<T>(path: string, form: FormData): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { method: "POST", body: form, headers: { "X-CSRFToken": csrfToken() } });
  } catch {
    throw OFFLINE;
  }
  if (!response.ok) throw await problemOf(response);
  return (await response.json()) as T;
}

/** Send a picture; the capture that it becomes. */
export async function sendPicture(file: Blob, name: string): Promise<{ id: number }> {
  const form = new FormData();
  form.append("picture", file, name);
  return sendForm<{ id: number }>("/api/pictures", form);
}

/** Any failure as something a person can read. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  return new Problem(0, "unexpected", "Something went wrong in this window.", "Reload the page and try again.");
}
