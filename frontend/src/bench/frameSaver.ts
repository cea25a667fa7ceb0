import type { Problem } from "../api/client";
import type { Cut, Frame } from "../api/types";
import { sameFrame, type FrameStore } from "./frameStore";

export type SaveState = { kind: "saved" } | { kind: "saving" } | { kind: "failed"; problem: Problem };

interface Wiring {
  save: (cutId: number, version: number, frame: Frame) => Promise<Cut>;
  fetch: (cutId: number) => Promise<Cut>;
  asProblem: (error: unknown) => Problem;
  onState: (state: SaveState) => void;
  onSaved: (cut: Cut) => void;
  onChangedElsewhere: (problem: Problem) => void;
}

const SETTLE_MS = 250;

/**
 * Writes a cut's frame a moment after it changed. One request at a time; a change meanwhile is
 * written next. What another window wrote first wins, and is shown.
 */
export class FrameSaver {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;
  private readonly unsubscribe: () => void;

  constructor(
    private cut: Cut,
    private readonly store: FrameStore,
    private readonly wiring: Wiring,
  ) {
    this.unsubscribe = store.subscribe((state, before) => {
      if (!sameFrame(state.frame, before.frame)) this.schedule();
    });
  }

  private schedule(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), SETTLE_MS);
  }

  /** Write now what is not yet written; resolves when the server has it. */
  async flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    while (this.running) await this.running;
    if (sameFrame(this.store.getState().frame, this.cut.frame)) return;
    this.running = this.write().finally(() => {
      this.running = null;
    });
    await this.running;
  }

  private async write(): Promise<void> {
    this.wiring.onState({ kind: "saving" });
    try {
      this.cut = await this.wiring.save(this.cut.id, this.cut.version, this.store.getState().frame);
      this.wiring.onState({ kind: "saved" });
      this.wiring.onSaved(this.cut);
    } catch (error) {
      await this.handle(this.wiring.asProblem(error));
    }
  }

  private async handle(problem: Problem): Promise<void> {
    if (problem.code !== "changed_elsewhere") {
      this.wiring.onState({ kind: "failed", problem });
      return;
    }
    this.cut = await this.wiring.fetch(this.cut.id);
    this.store.getState().replace(this.cut.frame);
    this.wiring.onState({ kind: "saved" });
    this.wiring.onChangedElsewhere(problem);
  }

  /** Write what is left and stop listening. */
  close(): void {
    this.unsubscribe();
    void this.flush();
  }
}
