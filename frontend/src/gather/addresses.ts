import { useLocation } from "react-router";

/** The address that another screen sent here to be taken; empty when somebody came by themselves. */
export function useAskedAddress(): string {
  const state = useLocation().state as { address?: string } | null;
  return state?.address ?? "";
}

/** Addresses out of what was typed or pasted: one a line, or separated by spaces or commas. */
export function splitAddresses(text: string): string[] {
  const seen = new Set<string>();
  for (const part of text.split(/[\s,;]+/)) {
    if (part) seen.add(part);
  }
  return [...seen];
}
