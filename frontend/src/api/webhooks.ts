import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";
import type { WebhookEvent } from "./types";

const KEY = ["webhooks"];
const WAITING_MS = 2_000;

export function useWebhooks() {
  return useQuery({
    queryKey: KEY,
    queryFn: () => answered(api.GET("/api/webhooks")),
    refetchInterval: ({ state }) => (state.data?.some((hook) => hook.deliveries.some((row) => row.state === "waiting")) ? WAITING_MS : false),
  });
}

export type WebhookChange =
  | { kind: "add"; address: string; events: WebhookEvent[] }
  | { kind: "events"; id: number; events: WebhookEvent[] }
  | { kind: "active"; id: number; active: boolean }
  | { kind: "delete"; id: number }
  | { kind: "try"; id: number }
  | { kind: "again"; messageId: number };

/** The secret of a new one, to be shown once. */
async function send(change: WebhookChange): Promise<string | null> {
  if (change.kind === "add") return (await answered(api.POST("/api/webhooks", { body: { address: change.address, events: change.events } }))).secret;
  if (change.kind === "again") {
    await api.POST("/api/webhooks/messages/{delivery_id}/again", { params: { path: { delivery_id: change.messageId } } });
    return null;
  }
  const params = { params: { path: { webhook_id: change.id } } };
  if (change.kind === "delete") await api.DELETE("/api/webhooks/{webhook_id}", params);
  else if (change.kind === "try") await api.POST("/api/webhooks/{webhook_id}/trial", params);
  else await api.PATCH("/api/webhooks/{webhook_id}", { ...params, body: change.kind === "events" ? { events: change.events } : { active: change.active } });
  return null;
}

export function useChangeWebhooks() {
  const queries = useQueryClient();
  return useMutation({ mutationFn: send, onSettled: () => queries.invalidateQueries({ queryKey: KEY }) });
}
