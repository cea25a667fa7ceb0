import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";

const KEY = ["accounts"];

export function useAccounts() {
  return useQuery({ queryKey: KEY, queryFn: () => answered(api.GET("/api/accounts")) });
}

export type AccountChange =
  | { kind: "add"; name: string; role: "producer" | "viewer" }
  | { kind: "role"; id: number; role: "producer" | "viewer" }
  | { kind: "close"; id: number; closed: boolean }
  | { kind: "keeper"; id: number; keeper: boolean }
  | { kind: "password"; id: number }
  | { kind: "token"; id: number; label: string; scope: "read" | "all" }
  | { kind: "revoke"; tokenId: number };

/** What was made up, to be shown once; nothing where nothing was. */
async function send(change: AccountChange): Promise<string | null> {
  if (change.kind === "add") return (await answered(api.POST("/api/accounts", { body: { name: change.name, role: change.role, password: "" } }))).secret;
  if (change.kind === "revoke") {
    await api.POST("/api/tokens/{token_id}/revoke", { params: { path: { token_id: change.tokenId } } });
    return null;
  }
  const params = { params: { path: { account_id: change.id } } };
  if (change.kind === "password") return (await answered(api.POST("/api/accounts/{account_id}/password", params))).secret;
  if (change.kind === "token") return (await answered(api.POST("/api/accounts/{account_id}/tokens", { ...params, body: { label: change.label, scope: change.scope } }))).secret;
  await api.PATCH("/api/accounts/{account_id}", { ...params, body: changed(change) });
  return null;
}

function changed(change: Extract<AccountChange, { kind: "role" | "close" | "keeper" }>) {
  if (change.kind === "role") return { role: change.role };
  return change.kind === "close" ? { closed: change.closed } : { keeper: change.keeper };
}

export function useChangeAccounts() {
  const queries = useQueryClient();
  return useMutation({ mutationFn: send, onSettled: () => queries.invalidateQueries({ queryKey: KEY }) });
}
