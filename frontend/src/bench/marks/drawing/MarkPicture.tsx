import { memo } from "react";

import type { DrawnMark, DrawnPart } from "../../../api/types";

interface Props {
  id: string;
  drawn: DrawnMark;
  dx_px: number;
  dy_px: number;
  zoom: number;
}

/** A mark as the server draws it: the shapes are those of the files. */
export const MarkPicture = memo(function MarkPicture({ id, drawn, dx_px, dy_px, zoom }: Props) {
  const { extent } = drawn;
  if (!extent) return null;
  // Whole CSS px: the browser would move a picture that begins between two of them.
  const [left, top] = [Math.floor(extent.left_px * zoom) - 1, Math.floor(extent.top_px * zoom) - 1];
  const [width, height] = [Math.ceil(extent.right_px * zoom) + 1 - left, Math.ceil(extent.bottom_px * zoom) + 1 - top];
  const place = {
    left,
    top,
    width,
    height,
    transform: dx_px !== 0 || dy_px !== 0 ? `translate(${dx_px * zoom}px, ${dy_px * zoom}px)` : undefined,
  };
  if (drawn.blend === "blur") return <BlurredRest id={id} drawn={drawn} place={place} zoom={zoom} />;
  return (
    <svg
      data-mark={id}
      className="pointer-events-none absolute overflow-visible"
      style={{ ...place, mixBlendMode: drawn.blend === "multiply" ? "multiply" : undefined }}
      viewBox={`${left / zoom} ${top / zoom} ${width / zoom} ${height / zoom}`}
      preserveAspectRatio="none"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      <g opacity={drawn.opacity}>
        {drawn.parts.map((part, index) => (
          <Part key={index} part={part} />
        ))}
      </g>
    </svg>
  );
});

function Part({ part }: { part: DrawnPart }) {
  const { box } = part;
  if (part.picture && box) {
    const [x, y] = [(box.left_px + box.right_px) / 2, (box.top_px + box.bottom_px) / 2];
    return (
      <image
        href={`/api/stickers/${part.picture}`}
        x={box.left_px}
        y={box.top_px}
        width={box.right_px - box.left_px}
        height={box.bottom_px - box.top_px}
        preserveAspectRatio="none"
        transform={`rotate(${part.angle_deg} ${x} ${y})`}
      />
    );
  }
  return (
    <path
      d={part.path ?? ""}
      fill={part.fill ?? "none"}
      fillRule={part.even_odd ? "evenodd" : "nonzero"}
      stroke={part.stroke ?? "none"}
      strokeWidth={part.stroke_px}
      strokeDasharray={part.dashes.length > 0 ? part.dashes.join(" ") : undefined}
    />
  );
}

/** The page below, blurred outside of what is to be seen. */
function BlurredRest({ id, drawn, place, zoom }: { id: string; drawn: DrawnMark; place: React.CSSProperties & { left: number; top: number }; zoom: number }) {
  const blur = `blur(${drawn.blur_px * zoom}px)`;
  const clip = `blurred-${id}`;
  return (
    <>
      <svg className="absolute size-0" aria-hidden>
        <clipPath id={clip} clipPathUnits="userSpaceOnUse">
          <path d={drawn.parts[0]?.path ?? ""} clipRule="evenodd" transform={`translate(${-place.left} ${-place.top}) scale(${zoom})`} />
        </clipPath>
      </svg>
      <div data-mark={id} className="pointer-events-none absolute" style={{ ...place, backdropFilter: blur, clipPath: `url(#${clip})` }} />
    </>
  );
}
