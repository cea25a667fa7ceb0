/** The two sets of colours. */
export type Theme = "day" | "night";

/** Which of them is shown: as it was set, as the computer has it, or as an earlier version kept it in this browser. */
export function themeOf(set: unknown): Theme {
  const said = set ?? (localStorage.getItem("tallpage.theme") === "tallpage-night" ? "night" : "day");
  if (said === "computer") return matchMedia("(prefers-color-scheme: dark)").matches ? "night" : "day";
  return said as Theme;
}

export function applyTheme(theme: Theme): void {
  document.documentElement.dataset["theme"] = theme === "night" ? "tallpage-night" : "tallpage";
}
