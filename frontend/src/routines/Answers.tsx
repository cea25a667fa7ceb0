import { formatBytes } from "../parts/figures";
import type { Question } from "../api/types";

export type Values = Record<string, string | number | boolean | null>;

/** What a routine asks before it runs; a field that is left alone keeps its usual value. */
export function Answers({ questions, values, onChange }: { questions: readonly Question[]; values: Values; onChange: (values: Values) => void }) {
  if (questions.length === 0) return null;
  const set = (name: string, value: string | boolean) => {
    onChange(Object.fromEntries(Object.entries({ ...values, [name]: value }).filter(([, said]) => said !== "")));
  };
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-semibold">It asks</legend>
      {questions.map(({ name, words, usual, field }) =>
        typeof usual === "boolean" ? (
          <label key={name} className="flex items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-sm" checked={Boolean(values[name] ?? usual)} onChange={(event) => set(name, event.target.checked)} />
            {words}
          </label>
        ) : (
          <label key={name} className="flex items-center justify-between gap-3">
            <span className="min-w-0">{words}</span>
            <input className="input input-sm figure w-40" placeholder={usualWords(usual, field)} value={String(values[name] ?? "")} onChange={(event) => set(name, event.target.value)} />
          </label>
        ),
      )}
    </fieldset>
  );
}

function usualWords(usual: Question["usual"], field: string): string {
  return typeof usual === "number" && field.endsWith("_bytes") ? formatBytes(usual) : String(usual ?? "");
}
