import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, type RenderResult } from "@testing-library/react";
import userEvent, { type UserEvent } from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter, useLocation } from "react-router";

interface Shown extends RenderResult {
  /** Somebody at the keyboard and the mouse. */
  person: UserEvent;
}

/** Show a part of the interface at an address, with what every screen has around it. */
export function show(part: ReactNode, { at = "/" }: { at?: string } = {}): Shown {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const shown = render(
    <QueryClientProvider client={queries}>
      <MemoryRouter initialEntries={[at]}>
        {part}
        <Place />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { ...shown, person: userEvent.setup() };
}

/** Says where one is: what a test sees of the address bar. */
function Place() {
  const { pathname } = useLocation();
  return <output aria-label="Place">{pathname}</output>;
}
