import { Component, type ReactNode } from "react";

import { ProblemNote } from "../parts/ProblemNote";

/** A screen whose code cannot be fetched, or that breaks, says so; the rest of the window stays. */
export class ScreenGuard extends Component<{ at: string; children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override componentDidUpdate(before: { at: string }) {
    if (this.state.broken && before.at !== this.props.at) this.setState({ broken: false });
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <main className="mx-auto max-w-xl p-12">
        <ProblemNote sentence="This screen cannot be shown." hint="Check that Tall Page is still running, then reload. What was saved is there.">
          <button type="button" className="btn btn-sm mt-2" onClick={() => window.location.reload()}>
            Reload
          </button>
        </ProblemNote>
      </main>
    );
  }
}
