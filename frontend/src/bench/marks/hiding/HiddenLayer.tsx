import { hiddenUrl } from "../../../api/marks";
import type { HiddenArea } from "../../../api/types";
import { useBench, useCut, useOrientation } from "../../benchContext";
import { shownCut } from "../../cut/cutStore";
import { filterOf } from "../../tone/toneSteps";

const CORNERS = ["0% 0%", "100% 0%", "0% 100%", "100% 100%"];

/** Hidden areas as the files show them. */
export function HiddenLayer({ zoom }: { zoom: number }) {
  const areas = useCut((state) => shownCut(state).hidden);
  const selected = useCut((state) => state.selected);
  const hiding = useCut((state) => state.stage === "hide");
  // What is solid lies over everything else, as in the files.
  const inOrder = [...areas].sort((first, second) => Number(first.how === "solid") - Number(second.how === "solid"));
  return inOrder.map((area, index) => <Hidden key={area.id || index} area={area} held={hiding && selected.includes(area.id)} zoom={zoom} />);
}

function Hidden({ area, held, zoom }: { area: HiddenArea; held: boolean; zoom: number }) {
  const { capture } = useBench();
  const orientation = useOrientation();
  const filter = useCut((state) => filterOf(shownCut(state).tone));
  const box = { left: area.x_px * zoom, top: area.y_px * zoom, width: area.width_px * zoom, height: area.height_px * zoom };
  return (
    <div data-hidden={area.id} className={`pointer-events-none absolute ${held ? "outline-2 outline-accent outline-dashed" : ""}`} style={box}>
      {area.how === "solid" ? (
        <div className="size-full" style={{ filter, backgroundColor: (area.colour ?? "#1D2B2A").slice(0, 7) }} />
      ) : (
        <img src={hiddenUrl(capture.id, area, orientation)} alt="" draggable={false} className="size-full bg-base-200 select-none" style={{ filter }} />
      )}
      {held && CORNERS.map((place) => {
        const [left, top] = place.split(" ");
        return <span key={place} className="absolute -mt-[5px] -ml-[5px] size-2.5 border border-neutral bg-accent" style={{ left, top }} />;
      })}
    </div>
  );
}
