import { Download, Search } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";

import { asProblem } from "../api/client";
import { useOpenSettings, useSettings } from "../api/settings";
import type { Setting } from "../api/types";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { OpenFile } from "../parts/OpenFile";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { isFound, wordsOf } from "./finding";
import { ELSEWHERE } from "./elsewhere";
import { Scripts } from "./Scripts";
import { SettingRow } from "./SettingRow";

/** Every setting with what it does, found by a word, and gone back to the usual one by one. */
export function SettingsPage() {
  useTitle("Settings");
  const told = useSettings();
  const open = useOpenSettings();
  const show = useNotices((state) => state.show);
  const [sought, setSought] = useState("");
  const settings = told.data?.settings ?? [];
  const found = settings.filter((row) => isFound(sought, wordsOf(row)));
  const places = ELSEWHERE.filter((row) => isFound(sought, [row.words, row.effect, row.group]));
  const started = told.data?.started_with.filter((row) => isFound(sought, [row.words, row.variable, "The server"])) ?? [];
  const groups = [...new Set([...settings.map((row) => row.group), ...ELSEWHERE.map((row) => row.group)])];
  const isAny = found.length + places.length + started.length > 0;
  return (
    <main className="mx-auto max-w-4xl px-6 pt-6 pb-16">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-xl font-semibold">Settings</h1>
        <OpenFile
          words="Bring in"
          name="A file of settings"
          accept=".json,application/json"
          onFile={(file) => open.mutate(file, { onSuccess: () => show({ tone: "info", text: "The settings of the file count now." }), onError: showProblem })}
        />
        <a className="btn btn-sm" href="/api/settings/file" download>
          <Download size={15} aria-hidden /> Save as a file
        </a>
      </div>
      <label className="input input-sm mb-6 flex w-full items-center gap-2">
        <Search size={15} aria-hidden />
        <input type="search" className="grow" aria-label="Find a setting" placeholder="Find a setting: dates, mail, hosts…" value={sought} onChange={(event) => setSought(event.target.value)} />
      </label>
      {told.isPending && <p>Fetching the settings…</p>}
      {told.isError && <ProblemNote sentence={asProblem(told.error).sentence} hint={asProblem(told.error).hint} />}
      {told.isSuccess && !isAny && <p className="py-4">No setting has “{sought}” in its words.</p>}
      {groups.map((group) => (
        <Group key={group} name={group} rows={found.filter((row) => row.group === group)} all={settings} places={places.filter((row) => row.group === group)} />
      ))}
      {told.isSuccess && <Scripts sought={sought} />}
      {started.length > 0 && (
        <section className="mb-8" aria-label="The server">
          <h2 className="mb-1 font-semibold">The server</h2>
          <p className="mb-2 text-sm">Whoever starts Tall Page says these, by variables of the environment.</p>
          <dl className="text-sm">
            {started.map((row) => (
              <div key={row.variable} className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-4 border-t border-base-300 py-2">
                <dt>
                  {row.words} <span className="figure block text-xs break-all text-info">{row.variable}</span>
                </dt>
                <dd className="figure break-all">{row.value}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
    </main>
  );
}

interface GroupProps {
  name: string;
  rows: Setting[];
  all: Setting[];
  places: (typeof ELSEWHERE)[number][];
}

function Group({ name, rows, all, places }: GroupProps) {
  if (rows.length + places.length === 0) return null;
  return (
    <section className="mb-8" aria-label={name}>
      <h2 className="mb-1 font-semibold">{name}</h2>
      <ul>
        {rows.map((row) => (
          <SettingRow key={row.name} setting={row} all={all} />
        ))}
        {places.map((place) => (
          <li key={place.to} className="grid grid-cols-1 gap-x-6 gap-y-1 border-t border-base-300 py-3 md:grid-cols-2">
            <div>
              <p className="font-medium">{place.words}</p>
              <p className="text-sm">{place.effect}</p>
            </div>
            <p className="self-center">
              <Link className="link link-primary text-sm" to={place.to}>
                {place.link}
              </Link>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
