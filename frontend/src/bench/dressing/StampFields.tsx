import { keepSticker } from "../../api/marks";
import type { Stamp } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { ColourPick } from "../marks/ColourPick";
import { Choice, Px, Row } from "./DressTools";

type Place = NonNullable<Stamp["place"]>;

const PLACES: Record<Place, string> = {
  "bottom-right": "lower right",
  "bottom-left": "lower left",
  "top-right": "upper right",
  "top-left": "upper left",
  middle: "in the middle",
  top: "above, in the middle",
  bottom: "below, in the middle",
  left: "left, in the middle",
  right: "right, in the middle",
  tiled: "all over",
};

interface Props {
  stamp: Stamp;
  onSet: (change: Stamp, words: string) => void;
}

/** A text or a picture, once or all over the picture. */
export function StampFields({ stamp, onSet }: Props) {
  const own = async (file: File | undefined) => {
    if (!file) return;
    try {
      onSet({ text: null, picture: await keepSticker(file), size_px: 96 }, "stamp chosen");
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <>
      <Row words="Text">
        <input
          key={stamp.text}
          className="input input-xs w-36"
          aria-label="Text of the stamp"
          maxLength={200}
          defaultValue={stamp.text ?? ""}
          onBlur={(event) => event.target.value.trim() && event.target.value !== stamp.text && onSet({ text: event.target.value, picture: null }, "stamp typed")}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        />
      </Row>
      <Row words="Where">
        <Choice name="Where the stamp stands" value={stamp.place ?? "bottom-right"} options={PLACES} onPick={(place) => onSet({ place }, "stamp moved")} />
      </Row>
      <Px words={stamp.picture ? "Width, px" : "Size, px"} value={stamp.size_px ?? 16} least={4} greatest={1_000} onSet={(size_px) => onSet({ size_px }, "stamp sized")} />
      <Px words="Angle, °" value={stamp.angle_deg ?? 0} least={-360} greatest={360} onSet={(angle_deg) => onSet({ angle_deg }, "stamp turned")} />
      <Px words="Opacity, %" value={Math.round((stamp.opacity ?? 0.5) * 100)} least={0} greatest={100} onSet={(percent) => onSet({ opacity: percent / 100 }, "stamp changed")} />
      <Px words={stamp.place === "tiled" ? "Apart, px" : "From the edge, px"} value={stamp.margin_px ?? 12} least={0} greatest={2_000} onSet={(margin_px) => onSet({ margin_px }, "stamp moved")} />
      {!stamp.picture && (
        <Row words="Colour">
          <ColourPick name="Colour of the stamp" value={stamp.colour ?? "#1D2B2A"} onPick={(colour) => colour && onSet({ colour }, "stamp coloured")} />
        </Row>
      )}
      <label className="mt-3 block text-info">
        Or a picture of your own (PNG, JPEG, WebP)
        <input type="file" className="file-input file-input-xs mt-1 w-full" accept="image/png,image/jpeg,image/webp" onChange={(event) => void own(event.target.files?.[0])} />
      </label>
    </>
  );
}
