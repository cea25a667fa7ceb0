import type { Join } from "../api/types";

interface JoinedPictureProps {
  join: Join;
  seam: number | null;
  onSeam: (number: number) => void;
}

/** The whole as it would be kept, with a line at each seam. */
export function JoinedPicture({ join, seam, onSeam }: JoinedPictureProps) {
  const heightPx = join.height_px ?? 1;
  // Another address for other seams: what is drawn for one is kept by the browser.
  const seams = join.seams.map((row) => row.at_px).join(".");
  return (
    <div className="relative max-w-[640px] border border-base-300" data-joined={join.parts.length}>
      {join.parts.map((rows, number) => (
        <img
          key={number}
          src={`/api/joins/${join.id}/parts/${number}?seams=${seams}`}
          alt={number === 0 ? "The pieces joined" : ""}
          width={join.width_px ?? 1}
          height={rows}
          loading="lazy"
          className="block h-auto w-full"
        />
      ))}
      {join.seams.map((row) => (
        <button
          key={row.number}
          type="button"
          className={`absolute inset-x-0 border-t ${row.number === seam ? "border-t-2 border-primary" : "border-dashed border-primary"}`}
          style={{ top: `${(100 * row.at_px) / heightPx}%` }}
          data-seam-line={row.number}
          aria-label={`Seam ${row.number}, at row ${row.at_px}`}
          onClick={() => onSeam(row.number)}
        >
          <span className="absolute right-1 bg-primary px-1 text-xs text-primary-content">Seam {row.number}</span>
        </button>
      ))}
    </div>
  );
}
