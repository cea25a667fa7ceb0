import type { CutDocument, DrawnMark, Mark } from "../../../api/types";
import { canonical } from "../../cut/canonical";
import type { Point } from "../../page/geometry/boxes";
import { badgeLabels, movedBy } from "../handling/geometry";
import type { ShownMark } from "../handling/hitMarks";

export interface Asked {
  marks: Mark[];
  /** Labels of the badges among them, by position. */
  labels: Record<number, string>;
  styles: CutDocument["styles"];
}

interface Known {
  key: string;
  mark: Mark;
  drawn: DrawnMark;
}

const NOT_MOVED: Point = { x_px: 0, y_px: 0 };

/**
 * What marks look like, as the server draws them: the same shapes go into the files. One request at a time; a
 * mark that was only moved needs none, and one on its way is shown as it was last drawn.
 */
export class MarkDrawer {
  private readonly known = new Map<string, Known>();
  private wanted: { marks: readonly Mark[]; styles: CutDocument["styles"] } | null = null;
  private running = false;
  private readonly listeners = new Set<() => void>();
  /** Rises whenever something new is known. */
  version = 0;

  constructor(private readonly fetch: (asked: Asked) => Promise<DrawnMark[]>) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Marks as they can be shown now; what is not known yet is asked for. */
  show(marks: readonly Mark[], styles: CutDocument["styles"]): ShownMark[] {
    const keys = keysOf(marks, styles);
    const shown = marks.map((mark, index) => {
      const known = this.known.get(mark.id);
      if (!known) return { mark, drawn: undefined, by: NOT_MOVED };
      if (known.key === keys[index]) return { mark, drawn: known.drawn, by: NOT_MOVED };
      return { mark, drawn: known.drawn, by: movedBy(known.mark, mark) ?? NOT_MOVED };
    });
    this.wanted = { marks, styles };
    queueMicrotask(() => void this.draw());
    return shown;
  }

  /** Ask for what is lacking, until nothing is. */
  private async draw(): Promise<void> {
    if (this.running || !this.wanted) return;
    const { marks, styles } = this.wanted;
    this.wanted = null;
    const keys = keysOf(marks, styles);
    const lacks = (mark: Mark, index: number) => {
      const known = this.known.get(mark.id);
      if (known?.key === keys[index]) return false;
      return !known || mark.kind === "dim" || movedBy(known.mark, mark) === null || labelled(known, keys[index]);
    };
    let lacking = marks.flatMap((mark, index) => (lacks(mark, index) ? [index] : []));
    // All that is dimmed is drawn as one.
    if (lacking.some((index) => marks[index]?.kind === "dim")) {
      lacking = marks.flatMap((mark, index) => (mark.kind === "dim" || lacking.includes(index) ? [index] : []));
    }
    if (lacking.length === 0) return;
    const all = badgeLabels(marks);
    const asked = lacking.flatMap((index) => marks[index] ?? []);
    const labels = Object.fromEntries(lacking.flatMap((index, position) => (all.has(index) ? [[position, all.get(index) ?? ""]] : [])));
    this.running = true;
    try {
      const drawn = await this.fetch({ marks: asked, labels, styles });
      const first = asked.find((mark) => mark.kind === "dim");
      const separate = asked.filter((mark) => mark.kind !== "dim" || mark === first);
      separate.forEach((mark, position) => {
        const found = drawn[position];
        const index = marks.indexOf(mark);
        if (found) this.known.set(mark.id, { key: keys[index] ?? "", mark, drawn: found });
      });
      for (const mark of asked) {
        if (mark.kind === "dim" && mark !== first) this.known.set(mark.id, { key: keys[marks.indexOf(mark)] ?? "", mark, drawn: NOTHING });
      }
      this.version += 1;
      for (const listener of this.listeners) listener();
    } catch {
      // The marks stay as they were drawn last; the next change asks again.
    } finally {
      this.running = false;
    }
    void this.draw();
  }
}

const NOTHING: DrawnMark = { parts: [], opacity: 1, blend: "over", blur_px: 0, extent: null, held: null, missing: [] };

function labelled(known: Known, key: string | undefined): boolean {
  return known.key.split("|", 1)[0] !== key?.split("|", 1)[0];
}

/** What each mark's look depends on: its label and style, then what it says itself. */
function keysOf(marks: readonly Mark[], styles: CutDocument["styles"]): string[] {
  const labels = badgeLabels(marks);
  const dims = canonical(marks.filter((mark) => mark.kind === "dim"));
  return marks.map((mark, index) => {
    if (mark.kind === "dim") return `|${dims}`;
    const style = mark.style ? canonical(styles[mark.style]) : "";
    return `${labels.get(index) ?? ""}${style}|${textOf(mark)}`;
  });
}

const texts = new WeakMap<Mark, string>();

/** What a mark says, as text; marks never change, so each is written once. */
function textOf(mark: Mark): string {
  const known = texts.get(mark);
  if (known !== undefined) return known;
  const text = canonical({ ...mark, id: "", locked: false });
  texts.set(mark, text);
  return text;
}
