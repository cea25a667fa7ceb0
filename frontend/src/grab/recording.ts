/** How often a shared screen is looked at for a clip, and for how long at most. */
export const CLIP_RATE_FPS = 10;
export const MOST_CLIP_S = 60;

/** How a clip's frames are drawn, and where they go. */
export interface Recorder {
  draw: () => Promise<Blob>;
  send: (number: number, seen: number, picture: Blob) => Promise<unknown>;
}

/** Frames of what is shared: each is sent once it is known for how long it was seen. */
export class Recording {
  private last: { number: number; picture: Blob } | null = null;
  private drawing: Promise<void> | null = null;
  private sent: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly recorder: Recorder,
    private readonly begunMs: number,
  ) {}

  /** The frame of a moment, counted from 0. */
  private numberAt(nowMs: number): number {
    return Math.min(CLIP_RATE_FPS * MOST_CLIP_S - 1, Math.floor(((nowMs - this.begunMs) * CLIP_RATE_FPS) / 1_000));
  }

  /** Looks, when a frame is due and the one before it is drawn: one that takes long is seen for longer. */
  tick(nowMs: number): void {
    const number = this.numberAt(nowMs);
    if (this.drawing || number <= (this.last?.number ?? -1)) return;
    this.drawing = this.recorder.draw().then((picture) => {
      this.flush(number);
      this.last = { number, picture };
      this.drawing = null;
    });
    // It is told of when the recording ends.
    this.drawing.catch(() => undefined);
  }

  /** Sends what is left; gives once everything has arrived, and fails if anything did not. */
  async finish(nowMs: number): Promise<void> {
    await this.drawing;
    this.flush(this.numberAt(nowMs) + 1);
    await this.sent;
  }

  private flush(until: number): void {
    const { last } = this;
    if (!last) return;
    // The first one is seen from the beginning on, however long it took to be drawn.
    const seen = Math.max(1, until - last.number);
    this.sent = this.sent.then(() => this.recorder.send(last.number, seen, last.picture));
    this.sent.catch(() => undefined);
    this.last = null;
  }
}
