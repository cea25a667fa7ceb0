import type { What } from "../api/types";

/** Of captures: the files that were made from them, or the pictures themselves. */
export function KindOf({ what, pictures, onPictures }: { what: What; pictures: boolean; onPictures: (pictures: boolean) => void }) {
  if (!what.captures?.length && what.sweep == null) return null;
  return (
    <fieldset className="flex flex-wrap gap-4">
      <legend className="sr-only">What of them</legend>
      {[false, true].map((option) => (
        <label key={String(option)} className="flex items-center gap-2">
          <input type="radio" className="radio radio-xs" checked={pictures === option} onChange={() => onPictures(option)} />
          {option ? "the pictures, as PNG" : "the files made from them"}
        </label>
      ))}
    </fieldset>
  );
}

/** What is handed over, as files or as pictures; a cut is always its picture. */
export const asChosen = (what: What, pictures: boolean): What => (what.captures?.length || what.sweep != null ? { ...what, pictures } : what);
