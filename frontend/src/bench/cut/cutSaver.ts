import type { Problem } from "../../api/client";
import type { Cut, CutDocument } from "../../api/types";
import { type CutStore, sameDocument } from "./cutStore";
import type { Saved } from "./keptHistory";
import { merged } from "./merging";

export type SaveState =
  | { kind: "saved" }
  | { kind: "saving" }
  /** Kept here; it is tried again by itself where `again` says so. */
  | { kind: "failed"; problem: Problem; again: boolean }
  /** Another window changed the same thing; somebody has to choose. Nothing is written meanwhile. */
  | { kind: "conflict"; theirs: Cut };

interface Wiring {
  save: (version: number, document: CutDocument) => Promise<Cut>;
  /** Saves from a window that is being left: nobody hears how it went. */
  saveLeaving: (version: number, document: CutDocument) => void;
  fetch: () => Promise<Cut>;
  asProblem: (error: unknown) => Problem;
  onState: (state: SaveState) => void;
  onSaved: (cut: Cut) => void;
  onMerged: () => void;
}

const SETTLE_MS = 250;
/** Pauses before a failed save is tried again; the last for every further one. */
const RETRY_MS = [1_000, 2_000, 5_000, 10_000, 30_000];

/**
 * Writes a cut a moment after it changed. One request at a time; a change meanwhile is written next.
 * "Saved" is only said when the server has what is shown.
 */
export class CutSaver {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;
  private failures = 0;
  private conflict: Cut | null = null;
  private readonly unsubscribe: () => void;

  constructor(
    private saved: Saved,
    private readonly store: CutStore,
    private readonly wiring: Wiring,
  ) {
    this.unsubscribe = store.subscribe((state, before) => {
      if (state.document !== before.document && !this.conflict) this.schedule(SETTLE_MS);
    });
    if (!this.isSaved) this.schedule(0);
  }

  /** What the server is known to have. */
  get known(): Saved {
    return this.saved;
  }

  /** Whether the server has what is shown. */
  get isSaved(): boolean {
    return sameDocument(this.store.getState().document, this.saved.document);
  }

  private schedule(after_ms: number): void {
    if (this.timer) clearTimeout(this.timer);
    if (!this.isSaved) this.wiring.onState({ kind: "saving" });
    this.timer = setTimeout(() => void this.flush(), after_ms);
  }

  /** Write now what is not yet written; resolves when the server has it, or has refused it. */
  async flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    while (this.running) await this.running;
    if (this.conflict) return;
    if (this.isSaved) {
      this.wiring.onState({ kind: "saved" });
      return;
    }
    this.running = this.write().finally(() => {
      this.running = null;
    });
    await this.running;
  }

  private async write(): Promise<void> {
    this.wiring.onState({ kind: "saving" });
    try {
      this.accept(await this.wiring.save(this.saved.version, this.store.getState().document));
    } catch (error) {
      await this.handle(this.wiring.asProblem(error));
    }
  }

  private accept(cut: Cut): void {
    this.failures = 0;
    this.saved = cut;
    // What was changed while it was written is written next.
    if (this.isSaved) this.wiring.onState({ kind: "saved" });
    this.wiring.onSaved(cut);
  }

  private async handle(problem: Problem): Promise<void> {
    if (problem.code === "changed_elsewhere") {
      try {
        this.meet(await this.wiring.fetch());
        return;
      } catch (error) {
        problem = this.wiring.asProblem(error);
      }
    }
    // What the server refused stays refused; what it could not do may go well the next time.
    const again = problem.status === 0 || problem.status >= 500;
    this.wiring.onState({ kind: "failed", problem, again });
    if (!again) return;
    const pause_ms = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)];
    this.failures += 1;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), pause_ms);
  }

  /** Go on from what another window wrote: put together what both did, or ask. */
  private meet(theirs: Cut): void {
    const base = this.saved.document;
    const mine = this.store.getState().document;
    const both = merged(base, mine, theirs.document);
    if (!both) {
      this.conflict = theirs;
      this.wiring.onState({ kind: "conflict", theirs });
      return;
    }
    this.saved = theirs;
    if (!sameDocument(both, mine)) {
      this.store.commit("taken over from another window", (cut) => Object.assign(cut, both));
      this.wiring.onMerged();
    }
    this.schedule(0);
  }

  /** Choose between what is shown and what the other window wrote; the other one is a step that can be undone to. */
  resolve(choice: "mine" | "theirs"): void {
    const theirs = this.conflict;
    if (!theirs) return;
    this.conflict = null;
    this.saved = theirs;
    const mine = this.store.getState().document;
    this.store.commit("taken over from another window", (cut) => Object.assign(cut, theirs.document));
    if (choice === "mine") this.store.commit("kept against another window", (cut) => Object.assign(cut, mine));
    this.schedule(0);
  }

  /** The window is being left: what is not written is sent off. */
  leave(): void {
    if (!this.isSaved && !this.conflict) this.wiring.saveLeaving(this.saved.version, this.store.getState().document);
  }

  /** Write what is left and stop listening. */
  close(): void {
    this.unsubscribe();
    void this.flush();
  }
}
