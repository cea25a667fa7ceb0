import type { MouseEvent } from "react";

import type { Capture } from "../api/types";
import { useNotices } from "../app/notices";

const letGo = new Set<string>();

/** For a link that saves a file: of what is not cleared it asks once, until something else is noted. */
export const askedFirst = ({ id, rights }: Pick<Capture, "id" | "rights">) => (event: MouseEvent<HTMLAnchorElement>) => {
  const key = `${id} ${rights.words}`;
  if (rights.cleared || letGo.has(key)) return;
  event.preventDefault();
  const link = event.currentTarget;
  useNotices.getState().show({
    tone: "error",
    text: `The rights are not cleared: ${rights.words}.`,
    action: {
      label: "Save all the same",
      run: () => {
        letGo.add(key);
        link.click();
      },
    },
  });
};
