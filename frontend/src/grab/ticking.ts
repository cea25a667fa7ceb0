/** Does something again and again, also while another tab is looked at; gives what ends it. */
export function every(ms: number, run: () => void): () => void {
  const ticker = new Worker(new URL("./ticker.ts", import.meta.url), { type: "module" });
  ticker.onmessage = run;
  ticker.postMessage(ms);
  return () => ticker.terminate();
}
