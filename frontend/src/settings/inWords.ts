import type { FormatName, Setting } from "../api/types";
import { takeWords } from "../gather/taking/takeWords";
import { BANDS } from "../parts/fields/wanted";
import { counted, formatName } from "../parts/figures";

/** What a setting is, or would be, in a few words. */
export function inWords(setting: Setting, value: unknown): string {
  switch (setting.kind) {
    case "choice":
      return setting.options.find((option) => option.value === value)?.words ?? String(value);
    case "number":
      return value === 1 && setting.unit === "days" ? "1 day" : `${String(value)} ${setting.unit}`;
    case "screens":
      return (value as string[]).join(", ");
    case "take":
      return takeWords(value as object).join(", ") || "as is right for most";
    case "hosts":
      return counted(Object.keys(value as object).length, "host");
    case "formats":
      return (value as FormatName[]).map(formatName).join(", ");
    case "fidelity":
      return value === null ? "the best under a limit" : `the lightest that looks ${BANDS.find((band) => band.least === value)?.words ?? (value as number)}`;
    default:
      return (value as string) || "none";
  }
}
