import { NumberInput } from "../../parts/fields/NumberInput";

const ROLES = ["heading", "paragraph", "text", "list", "item", "table", "row", "image", "figure", "section", "navigation", "header", "footer", "form", "button", "quote", "code", "video", "frame"];

type Rule = Record<string, unknown>;

/** Which block is meant: what it is, what it says, what it stands below, and which one of several. */
export function BlockFields({ words, rule, optional, onChange }: { words: string; rule: Rule | undefined; optional: boolean; onChange: (rule: Rule | undefined) => void }) {
  const given = rule ?? {};
  const set = (name: string, value: unknown) => {
    const all = Object.entries({ ...given, [name]: value });
    const next: Rule = Object.fromEntries(all.filter(([key, said]) => said !== "" && said != null && !(key === "number" && said === 1)));
    const says = Object.keys(next).some((key) => key !== "number");
    if (says) onChange(next);
    else if (optional) onChange(undefined);
  };
  const text = (name: string, label: string, placeholder: string) => (
    <label className="grid gap-0.5">
      {label}
      <input className="input input-sm w-full" maxLength={300} placeholder={placeholder} defaultValue={typeof given[name] === "string" ? given[name] : ""} onBlur={(event) => set(name, event.target.value.trim())} onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()} />
    </label>
  );
  return (
    <fieldset className="grid grid-cols-2 gap-x-3 gap-y-2 border-l-2 border-base-300 pl-3 sm:col-span-2">
      <legend className="font-semibold">{words}</legend>
      <label className="grid gap-0.5">
        What it is
        <select className="select select-sm w-full" value={typeof given.role === "string" ? given.role : ""} onChange={(event) => set("role", event.target.value)}>
          <option value="">anything</option>
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </label>
      {text("says", "That says", "Cars")}
      {text("below", "Below the heading", "Fares")}
      {text("selector", "Selector", "table.fares")}
      <label className="flex items-center gap-2">
        Which one
        <NumberInput name={`${words}: which one`} value={typeof given.number === "number" ? given.number : 1} least={-10_000} greatest={10_000} onCommit={(number) => set("number", number || 1)} />
        <span className="text-info">-1 is the last</span>
      </label>
    </fieldset>
  );
}
