import { useRoutines } from "../../api/routines";
import { useScreens } from "../../api/screens";
import type { FormatName, Setting, TakeChanges } from "../../api/types";
import { BANDS } from "../../parts/fields/wanted";
import { NumberInput } from "../../parts/fields/NumberInput";
import { Pick } from "../../parts/fields/Pick";
import { formatName, screenWords } from "../../parts/figures";
import { Hosts } from "./Hosts";
import { LineField } from "./LineField";
import { Several } from "./Several";
import { TakeFields } from "./TakeFields";

export interface ControlProps {
  setting: Setting;
  /** What is chosen counts at once. */
  onChoose: (value: unknown) => void;
}

const FEW = 4;

/** What a setting is changed with. */
export function Control({ setting, onChoose }: ControlProps) {
  const label = `words-${setting.name}`;
  switch (setting.kind) {
    case "choice":
      if (setting.options.length <= FEW)
        return (
          <div role="radiogroup" aria-labelledby={label}>
            <Pick name={setting.name} value={setting.value as string} options={Object.fromEntries(setting.options.map((option) => [option.value, option.words]))} onPick={onChoose} />
          </div>
        );
      return (
        <select className="select select-sm w-full" aria-labelledby={label} value={setting.value as string} onChange={(event) => onChoose(event.target.value)}>
          {setting.options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.words}
            </option>
          ))}
        </select>
      );
    case "number":
      return (
        <span className="inline-flex items-center gap-2">
          <NumberInput
            name={setting.words}
            value={setting.value as number}
            least={setting.least ?? 0}
            greatest={setting.most ?? Infinity}
            size="w-24"
            onCommit={(value) => value !== null && value !== setting.value && onChoose(value)}
          />
          {setting.unit}
        </span>
      );
    case "screens":
      return <ScreensControl setting={setting} onChoose={onChoose} />;
    case "take":
      return <TakeFields said={setting.value as TakeChanges} words={setting.words} onSay={onChoose} />;
    case "hosts":
      return <Hosts setting={setting} onChoose={onChoose} />;
    case "formats":
      return <Several label={label} options={setting.options.map(({ value }) => ({ value, words: formatName(value as FormatName) }))} chosen={setting.value as string[]} onChoose={onChoose} />;
    case "fidelity":
      return (
        <select className="select select-sm w-full" aria-labelledby={label} value={(setting.value as number | null) ?? ""} onChange={(event) => onChoose(event.target.value ? Number(event.target.value) : null)}>
          <option value="">The best under a limit</option>
          {BANDS.map(({ least, words }) => (
            <option key={least} value={least}>
              The lightest that looks {words} ({least})
            </option>
          ))}
        </select>
      );
    case "routine":
      return <RoutineControl setting={setting} onChoose={onChoose} />;
    default:
      return <LineField setting={setting} onChoose={onChoose} />;
  }
}

function ScreensControl({ setting, onChoose }: ControlProps) {
  const screens = useScreens();
  const options = screens.data?.map((screen) => ({ value: screen.name, words: `${screen.name}, ${screenWords(screen)}` })) ?? [];
  return <Several label={`words-${setting.name}`} options={options} chosen={setting.value as string[]} onChoose={onChoose} />;
}

function RoutineControl({ setting, onChoose }: ControlProps) {
  const routines = useRoutines();
  const chosen = setting.value as string;
  const names = [...new Set(routines.data?.map((routine) => routine.name) ?? [])];
  return (
    <select className="select select-sm w-full" aria-labelledby={`words-${setting.name}`} value={chosen} onChange={(event) => onChoose(event.target.value)}>
      <option value="">{names.length === 0 ? "There is no routine yet" : "None"}</option>
      {chosen && routines.isSuccess && !names.includes(chosen) && <option value={chosen}>{chosen}, which is not there any more</option>}
      {names.map((name) => (
        <option key={name} value={name}>
          {name}
        </option>
      ))}
    </select>
  );
}
