import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendForm } from "./client";
import type { Clip, ClipDocument, ClipIn, ClipOutputIn } from "./types";

const POLL_MS = 700;
const LIST = ["clips"];

const keyOf = (clipId: number) => ["clip", clipId];

/** How many changes of a clip the server has not answered yet. */
const unsaved = new Map<number, number>();

const isPending = ({ job }: { job: { state: string } }) => job.state === "queued" || job.state === "running";

/** The newest clips; followed while one is being taken. */
export function useClips() {
  return useQuery({
    queryKey: LIST,
    queryFn: () => answered(api.GET("/api/clips")),
    refetchInterval: ({ state }) => (state.data?.some(isPending) ? POLL_MS : false),
  });
}

/** A clip; followed while it is taken, or a file is made of it. */
export function useClip(clipId: number) {
  const queries = useQueryClient();
  return useQuery({
    queryKey: keyOf(clipId),
    queryFn: async () => {
      const clip = await answered(api.GET("/api/clips/{clip_id}", { params: { path: { clip_id: clipId } } }));
      const known = queries.getQueryData<Clip>(keyOf(clipId));
      // What the server has told may be older than what was changed here meanwhile.
      const isOlder = known && ((unsaved.get(clipId) ?? 0) > 0 || clip.revision < known.revision);
      return isOlder ? { ...clip, document: known.document, revision: known.revision } : clip;
    },
    refetchIntervalInBackground: true, // whose tab was shared still looks at that one
    refetchInterval: ({ state }) => (state.data && (isPending(state.data) || state.data.outputs.some(isPending)) ? POLL_MS : false),
    retry: false,
  });
}

export function useTakeClip() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: ClipIn) => answered(api.POST("/api/clips", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: LIST }),
  });
}

/** What a change makes of a clip's document: some of its parts, told as they are or made of the newest ones. */
export type ClipChange = Partial<ClipDocument> | ((now: ClipDocument) => Partial<ClipDocument>);

/** Says how a clip is seen; what was changed is shown at once, and taken back where it is refused. */
export function useChangeClip(clipId: number): (change: ClipChange, onError: (error: Error) => void) => void {
  const queries = useQueryClient();
  const key = keyOf(clipId);
  const saving = useMutation({
    scope: { id: `clip-${clipId}` },
    mutationFn: async (document: ClipDocument) => {
      const revision = queries.getQueryData<Clip>(key)?.revision ?? 0;
      try {
        return await answered(api.PUT("/api/clips/{clip_id}", { params: { path: { clip_id: clipId } }, body: { revision, document } }));
      } finally {
        unsaved.set(clipId, (unsaved.get(clipId) ?? 1) - 1);
      }
    },
    onSuccess: ({ revision }) => queries.setQueryData<Clip>(key, (clip) => clip && { ...clip, revision }),
    onError: () => queries.invalidateQueries({ queryKey: key }),
  });
  // The change is shown before it waits for those before it, so that the next one is made of it.
  return (change, onError) => {
    const now = queries.getQueryData<Clip>(key)?.document as ClipDocument | undefined;
    if (!now) return;
    const document = { ...now, ...(typeof change === "function" ? change(now) : change) };
    void queries.cancelQueries({ queryKey: key });
    unsaved.set(clipId, (unsaved.get(clipId) ?? 0) + 1);
    queries.setQueryData<Clip>(key, (clip) => clip && { ...clip, document });
    saving.mutate(document, { onError });
  };
}

export function useMakeClip(clipId: number) {
  return useWithClip(clipId, (body: ClipOutputIn) => answered(api.POST("/api/clips/{clip_id}/files", { params: { path: { clip_id: clipId } }, body })));
}

export function useStopClip(clipId: number) {
  return useWithClip(clipId, () => answered(api.POST("/api/clips/{clip_id}/stop", { params: { path: { clip_id: clipId } } })));
}

export function useStopClipFile(clipId: number) {
  return useWithClip(clipId, (outputId: number) => answered(api.POST("/api/clips/files/{output_id}/stop", { params: { path: { output_id: outputId } } })));
}

export function useDeleteClipFile(clipId: number) {
  return useWithClip(clipId, (outputId: number) => answered(api.DELETE("/api/clips/files/{output_id}", { params: { path: { output_id: outputId } } })));
}

export function useDeleteClip() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (clipId: number) => answered(api.DELETE("/api/clips/{clip_id}", { params: { path: { clip_id: clipId } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: LIST }),
  });
}

function useWithClip<Given, Answer>(clipId: number, send: (given: Given) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn: send, onSettled: () => queries.invalidateQueries({ queryKey: keyOf(clipId) }) });
}

/** Begins a clip of a shared screen; gives the key by which its frames are sent. */
export async function beginSharedClip(): Promise<string> {
  return (await answered(api.POST("/api/clips/shared"))).key;
}

/** Sends what is seen from a frame on, counted from 0. */
export function sendSharedFrame(key: string, number: number, picture: Blob): Promise<unknown> {
  const form = new FormData();
  form.append("picture", picture, "frame.png");
  return sendForm(`/api/clips/shared/${key}/frames?number=${number}`, form);
}

/** Has a clip made of the frames that were sent. */
export function endSharedClip(key: string, body: { name: string; rate_fps: number; frame_count: number }): Promise<Clip> {
  return answered(api.POST("/api/clips/shared/{key}", { params: { path: { key } }, body }));
}

/** Which frames are shown: with what is hidden and marked now, or when a file was asked for. */
export interface FramesOf {
  id: number;
  revision?: number;
  output?: number;
}

/** The frames of a clip, which are fetched anew after a change only where something is hidden or marked on them. */
export function framesOf({ id, revision, document }: Clip): FramesOf {
  return document.hidden.length + document.marks.length > 0 ? { id, revision } : { id };
}

/** A frame, 120 or 640 px wide at most. */
export function frameUrl({ id, revision, output }: FramesOf, frame: number, width_px: 120 | 640, pointer: boolean): string {
  const when = output !== undefined ? `&output=${output}` : revision !== undefined ? `&revision=${revision}` : "";
  return `/api/clips/${id}/frames/${frame}/${width_px}?pointer=${pointer}${when}`;
}

export function clipFileUrl(outputId: number, save = false): string {
  return `/api/clips/files/${outputId}/file${save ? "?save=true" : ""}`;
}
