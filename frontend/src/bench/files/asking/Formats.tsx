import { swatchUrl } from "../../../api/pictures";
import type { Candidate, Choice, Output } from "../../../api/types";
import { formatBytes, formatName } from "../../../parts/figures";
import { expectedChoices, weakestLeaf } from "./choices";

interface Props {
  output: Output;
  onChoose: (choice: Choice) => void;
}

/** Every format that was tried, with the place where the chosen file lost most, at 1:1. */
export function Formats({ output, onChoose }: Props) {
  const swatches = output.swatch_key !== "";
  const others = expectedChoices(output);
  return (
    <section aria-label="Formats" data-formats>
      {output.leaves.length > 0 && (
        <p className="mb-2">
          Of the leaf that lost most, number <span className="figure">{weakestLeaf(output)}</span>:
        </p>
      )}
      {swatches && (
        <div className="mb-2 flex items-center gap-2">
          <Swatch output={output} name="original" words="The original" />
          <span>
            <span className="block font-medium">Original</span>
            where this file lost most, at 1:1
          </span>
        </div>
      )}
      <ul>
        {output.candidates.map((row, number) => (
          <li key={row.recipe} className="mb-2 flex items-center gap-2" data-format={row.choice.format}>
            {swatches && <Swatch output={output} name={number} words={row.recipe} />}
            <Tried output={output} row={row} onChoose={onChoose} />
          </li>
        ))}
      </ul>
      {others.length > 0 && (
        <p>
          Not made, since they are expected to look worse:{" "}
          {others.map(({ format, choice, fidelity }, index) => (
            <span key={format}>
              {index > 0 && ", "}
              <button type="button" className="link" onClick={() => onChoose(choice)}>
                {formatName(format)}
              </button>{" "}
              <span className="figure">about {fidelity.toFixed(0)}</span>
            </span>
          ))}
          .
        </p>
      )}
    </section>
  );
}

function Tried({ output, row, onChoose }: Props & { row: Candidate }) {
  const chosen = JSON.stringify(row.choice) === JSON.stringify(output.made_choice);
  const setting = row.choice.quality ?? row.choice.colours;
  return (
    <span className="min-w-0 flex-1">
      {/* One element for both, so that it stays in hand when it becomes the chosen one. */}
      <button
        type="button"
        aria-pressed={chosen}
        className={`block text-left ${chosen ? "font-semibold" : "link"}`}
        title={chosen ? "This file" : `Take ${formatName(row.choice.format)} instead`}
        onClick={() => !chosen && onChoose(row.choice)}
      >
        {row.recipe}
      </button>
      <span className="figure block">{formatBytes(row.bytes)}</span>
      <span className="figure block">fidelity {row.fidelity.toFixed(0)}</span>
      {setting != null && (
        <span className="figure block text-xs">{row.choice.quality != null ? `quality ${setting}` : `${setting} colours`}</span>
      )}
    </span>
  );
}

function Swatch({ output, name, words }: { output: Output; name: "original" | number; words: string }) {
  const place = output.worst[0];
  if (!place) return null;
  const scale = 1 / window.devicePixelRatio;
  return (
    <img
      src={swatchUrl(output, name)}
      alt={words}
      className="seethrough shrink-0"
      style={{ width: place.width_px * scale, height: place.height_px * scale }}
    />
  );
}

