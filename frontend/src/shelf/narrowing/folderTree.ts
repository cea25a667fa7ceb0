import type { Folder } from "../../api/types";

/** Folders from outer to inner, each with how deep it lies; those beside each other by name. */
export function inOrder(folders: readonly Folder[]): { folder: Folder; depth: number }[] {
  const within = (parent: number | null, depth: number): { folder: Folder; depth: number }[] =>
    folders
      .filter((folder) => (folder.parent ?? null) === parent)
      .sort((first, second) => first.name.localeCompare(second.name))
      .flatMap((folder) => [{ folder, depth }, ...within(folder.id, depth + 1)]);
  return within(null, 0);
}
