import { keepPreviousData, useQuery } from "@tanstack/react-query";

import { answered, api } from "./client";
import type { Output } from "./types";

/** What is said of a picture in a page; without an `alt`, what the page says. */
export interface SnippetWords {
  alt: string | null;
  caption: string;
  credit: string;
  /** What stands before the names of its files. */
  prefix: string;
  /** Whether the other rows of the cut are there to be chosen from. */
  every_size: boolean;
}

/** A row's file as it goes into a page, as HTML and Markdown. */
export function useSnippet(output: Output, words: SnippetWords) {
  return useQuery({
    queryKey: ["snippet", output.id, output.file_key, words],
    queryFn: () => answered(api.POST("/api/outputs/{output_id}/snippet", { params: { path: { output_id: output.id } }, body: words })),
    placeholderData: keepPreviousData,
  });
}

/** The files of a snippet with its HTML and Markdown, as a ZIP. */
export function snippetArchiveUrl(output: Output, { alt, every_size, ...words }: SnippetWords): string {
  const asked = new URLSearchParams({ ...words, every_size: `${every_size}`, ...(alt !== null && { alt }) });
  return `/api/outputs/${output.id}/snippet.zip?${asked}`;
}
