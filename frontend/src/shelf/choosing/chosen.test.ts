import { beforeEach, describe, expect, it } from "vitest";

import { between, useChosen } from "./chosen";

const SHOWN = [9, 7, 5, 3, 1];
const ids = () => [...useChosen.getState().ids].sort((first, second) => first - second);

describe("choosing captures", () => {
  beforeEach(() => useChosen.getState().clear());

  it("takes a range in the order that is shown, in either direction", () => {
    expect(between(SHOWN, 7, 3)).toEqual([7, 5, 3]);
    expect(between(SHOWN, 3, 7)).toEqual([7, 5, 3]);
    expect(between(SHOWN, 8, 3)).toEqual([3]);
  });

  it("adds a range to what is chosen, from the last one that was pressed", () => {
    const { toggle, upTo } = useChosen.getState();
    toggle(1);
    toggle(9);
    upTo(5, SHOWN);
    expect(ids()).toEqual([1, 5, 7, 9]);
    upTo(7, SHOWN);
    expect(ids()).toEqual([1, 5, 7, 9]);
  });

  it("lets go of one that is pressed again", () => {
    const { toggle } = useChosen.getState();
    toggle(5);
    toggle(5);
    expect(ids()).toEqual([]);
  });
});
