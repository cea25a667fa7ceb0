/** A request as a test reads it. */
export interface Asked {
  method: string;
  path: string;
  query: URLSearchParams;
  body: unknown;
}

interface Answer {
  status?: number;
  body?: unknown;
}

type Answering = (asked: Asked, ...parts: string[]) => Answer | Promise<Answer>;

/** Answers the interface's requests in a test, in place of the server; what nobody expected is a 404. */
export class FakeServer {
  /** Everything that was asked so far. */
  asked: Asked[] = [];
  private rules: { method: string; path: RegExp; answering: Answering }[] = [];
  private isAway = false;

  /** Answer `"GET /api/captures/:id"`; the latest rule that fits counts. Gives itself, for the next rule. */
  on(what: string, answering: Answering | object): this {
    const [method = "", path = ""] = what.split(" ");
    const pattern = new RegExp(`^${path.replace(/:\w+/g, "([^/]+)")}$`);
    const answers = typeof answering === "function" ? (answering as Answering) : () => ({ body: answering });
    this.rules.unshift({ method, path: pattern, answering: answers });
    return this;
  }

  /** Refuse with a problem, as the server words it. */
  refuse(what: string, status: number, title: string, code = "refused", detail = ""): this {
    return this.on(what, () => ({ status, body: { status, title, code, detail } }));
  }

  /** Forget everything: what was asked, and how to answer. */
  reset(): void {
    this.asked = [];
    this.rules = [];
    this.isAway = false;
  }

  /** From now on nobody answers, until it is back. */
  goAway(isAway = true): void {
    this.isAway = isAway;
  }

  /** What was asked of one kind, like `"POST /api/captures"`. */
  askedOf(what: string): Asked[] {
    return this.asked.filter((row) => `${row.method} ${row.path}` === what);
  }

  /** Stands in for the browser's `fetch`. */
  readonly fetch = async (input: RequestInfo | URL, init?: RequestInit): Promise<Response> => {
    if (this.isAway) throw new TypeError("Failed to fetch");
    const request = new Request(input, init);
    const { pathname: path, searchParams: query } = new URL(request.url);
    const text = request.method === "GET" ? "" : await request.text();
    const asked = { method: request.method, path, query, body: asJson(text) };
    this.asked.push(asked);
    for (const rule of this.rules) {
      const match = rule.path.exec(path);
      if (rule.method !== request.method || !match) continue;
      const { status = 200, body } = await rule.answering(asked, ...match.slice(1));
      return new Response(body === undefined ? null : JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
    }
    return new Response(JSON.stringify({ status: 404, code: "not_found", title: "Nothing is there.", detail: "" }), { status: 404 });
  };
}

function asJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
