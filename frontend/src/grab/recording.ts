/** How often a shared screen is looked at for a clip, and for how long at most. */
export const CLIP_RATE_FPS = 10;
export const MOST_CLIP_S = 60;

/** How a clip's frames are drawn, and where they go. */
export interface Recorder {
  draw: () => Promise<Blob>;
  send: (number: number, picture: Blob) => Promise<unknown>;
}

/** Frames of what is shared, sent one after the other. One that does not come is made up for by the one before it. */
export class Recording {
  private next = 0;
  private isDrawing = false;
  private sent: Promise<unknown> = Promise.resolve();
  /** What went wrong first, if anything did. */
  failure: unknown = null;

  constructor(
    private readonly recorder: Recorder,
    private readonly begunMs: number,
  ) {}

  /** Looks, when a frame is due and the one before it is drawn. */
  tick(nowMs: number): void {
    const number = this.framesUntil(nowMs) - 1;
    if (this.isDrawing || number < this.next) return;
    this.next = number + 1;
    this.isDrawing = true;
    const drawn = this.recorder.draw().finally(() => {
      this.isDrawing = false;
    });
    this.sent = Promise.all([drawn, this.sent])
      .then(([picture]) => this.recorder.send(number, picture))
      .catch((error: unknown) => {
        this.failure ??= error;
      });
  }

  /** Waits for what is on its way; gives how many frames there are. */
  async finish(nowMs: number): Promise<number> {
    const count = this.framesUntil(nowMs);
    await this.sent;
    return count;
  }

  private framesUntil(nowMs: number): number {
    return Math.min(CLIP_RATE_FPS * MOST_CLIP_S, Math.floor(((nowMs - this.begunMs) * CLIP_RATE_FPS) / 1_000) + 1);
  }
}
