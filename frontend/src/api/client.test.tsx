import { describe, expect, it, vi } from "vitest";

import { server } from "../testing/setup";
import { answered, api, asProblem, type Problem, sendPicture } from "./client";

const failed = async (call: Promise<unknown>) => asProblem(await call.then(() => new Error("it went well"), (error: unknown) => error));
const outlets = () => answered(api.GET("/api/outlets"));

describe("requests", () => {
  it("carry the token that the server gave, where they change something", async () => {
    document.cookie = "csrftoken=herring";
    const tokens: (string | null)[] = [];
    const fetch = vi.spyOn(server, "fetch").mockImplementation((input) => {
      tokens.push((input as Request).headers.get("X-CSRFToken"));
      return Promise.resolve(new Response("[]"));
    });
    await outlets();
    await api.POST("/api/outlets", { body: { name: "Letter" } });
    fetch.mockRestore();
    expect(tokens).toEqual([null, "herring"]);
  });

  it("are refused in the server's words", async () => {
    server.refuse("GET /api/outlets", 422, "Give a name.", "name_missing", "Any will do.");
    expect(await failed(outlets())).toMatchObject({ status: 422, code: "name_missing", sentence: "Give a name.", hint: "Any will do." } satisfies Partial<Problem>);
  });

  it("say so when nobody answers", async () => {
    server.goAway();
    expect(await failed(outlets())).toMatchObject({ status: 0, code: "offline" });
    expect(await failed(sendPicture(new Blob(["x"]), "x.png"))).toMatchObject({ status: 0, code: "offline" });
  });

  it("say what came where that is no answer of ours", async () => {
    vi.spyOn(server, "fetch").mockResolvedValue(new Response("<h1>Bad gateway</h1>", { status: 502 }));
    expect(await failed(outlets())).toMatchObject({ status: 502, sentence: "The server answered 502." });
  });

  it("lead to the way in when nobody is signed in", async () => {
    const assign = vi.spyOn(window.location, "assign").mockImplementation(() => undefined);
    server.refuse("GET /api/outlets", 401, "Sign in first.", "signed_out");
    expect(await failed(outlets())).toMatchObject({ code: "signed_out" });
    expect(assign).toHaveBeenCalledWith(`/account/sign-in?next=${encodeURIComponent(window.location.pathname)}`);
  });

  it("are told as a fault of this window where nothing else is known", () => {
    expect(asProblem(new TypeError("x is undefined"))).toMatchObject({ code: "unexpected" });
  });
});
