import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { useOwnKeys } from "../app/actions/ownKeys";
import { server } from "../testing/setup";
import { show } from "../testing/show";
import { KeysPage } from "./KeysPage";

async function shown(keys: Record<string, string[]> = {}) {
  server.on("GET /api/me/keys", { keys }).on("POST /api/me/keys", ({ body }) => ({ body }));
  useOwnKeys.setState({ own: {} });
  const { person, container } = show(<KeysPage />);
  const row = (id: string) => within(container.querySelector<HTMLElement>(`[data-action=${id}]`) ?? container);
  await waitFor(() => expect(useOwnKeys.getState().own).toEqual(keys));
  const press = async (id: string, key: string) => {
    await person.click(row(id).getByLabelText(/^Key of/));
    await person.keyboard(key);
  };
  const sent = () => server.askedOf("POST /api/me/keys").map((asked) => (asked.body as { keys: object }).keys);
  return { person, row, press, sent };
}

describe("keys of one's own", () => {
  it("are set by pressing", async () => {
    const { press, sent, row } = await shown();
    await press("outlets", "z");
    await waitFor(() => expect(sent()).toEqual([{ outlets: ["z"] }]));
    await row("outlets").findByLabelText("Key of “Outlets”: Z");
  });

  it("take another one's place once that is wanted", async () => {
    const { person, press, sent, row } = await shown();
    await press("sweeps", "s");
    expect(row("sweeps").getByRole("alert").textContent).toContain("S does “Shelf” here.");
    expect(sent()).toEqual([]);
    await person.click(row("sweeps").getByRole("button", { name: "Take it from there" }));
    await waitFor(() => expect(sent()).toEqual([{ sweeps: ["s"], shelf: [] }]));
  });

  it("are left as they are by Escape, and refused where the browser has them", async () => {
    const { press, sent } = await shown();
    await press("outlets", "{Escape}");
    expect(sent()).toEqual([]);
    await press("outlets", "{Control>}w{/Control}");
    expect(screen.getByRole("alert").textContent).toBe("Ctrl + W belongs to the browser. Choose another key.");
    expect(sent()).toEqual([]);
  });

  it("go back to the usual, one or all", async () => {
    const { person, row, sent } = await shown({ outlets: ["z"], shelf: ["x"] });
    await person.click(row("outlets").getByRole("button", { name: "As usual" }));
    await waitFor(() => expect(sent()).toEqual([{ shelf: ["x"] }]));
    await person.click(screen.getByRole("button", { name: "All as usual" }));
    await waitFor(() => expect(sent().at(-1)).toEqual({}));
  });
});
