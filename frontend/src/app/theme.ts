/** The two themes, remembered by this browser. */
export type Theme = "tallpage" | "tallpage-night";

const KEY = "tallpage.theme";

export function storedTheme(): Theme {
  return localStorage.getItem(KEY) === "tallpage-night" ? "tallpage-night" : "tallpage";
}

export function applyTheme(theme: Theme): void {
  document.documentElement.dataset["theme"] = theme;
  localStorage.setItem(KEY, theme);
}
