import { keepSticker, useSigns } from "../../../api/marks";
import { showProblem } from "../../../app/showProblem";
import { Panel } from "../../../parts/Panel";
import { useBench } from "../../benchContext";
import { changeMarks } from "../markSteps";

/** Which sign, or which picture of one's own. */
export function StickerPick({ id }: { id: string }) {
  const { store } = useBench();
  const signs = useSigns();
  const set = (change: { sign: string | null; picture: string | null }) => changeMarks(store, "sticker chosen", [id], (mark) => ({ ...mark, ...change }));
  const own = async (file: File | undefined) => {
    if (!file) return;
    try {
      set({ sign: null, picture: await keepSticker(file) });
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <Panel label="Sign" name="Which sign" button="btn-ghost btn-xs" size="w-64">
      <div className="grid grid-cols-6 gap-1">
        {Object.entries(signs).map(([name, path]) => (
          <button key={name} type="button" className="btn btn-square btn-ghost btn-sm" aria-label={name.replaceAll("-", " ")} title={name.replaceAll("-", " ")} onClick={() => set({ sign: name, picture: null })}>
            <svg viewBox="0 0 24 24" className="size-5" fill="none" stroke="currentColor" strokeWidth={2} strokeLinecap="round" strokeLinejoin="round" aria-hidden>
              <path d={path} />
            </svg>
          </button>
        ))}
      </div>
      <label className="mt-3 block">
        A picture of your own (PNG, JPEG, WebP)
        <input type="file" className="file-input file-input-xs mt-1 w-full" accept="image/png,image/jpeg,image/webp" onChange={(event) => void own(event.target.files?.[0])} />
      </label>
    </Panel>
  );
}
