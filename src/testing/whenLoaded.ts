import { act } from "@testing-library/react";

/** For tests: waits until what is loaded on demand, and what that loads, stands in the page. */
export const whenLoaded = async () =>
  act(async () => {
    for (let turn = 0; turn < 5; turn++) await new Promise((resolve) => setTimeout(resolve, 0));
  });
