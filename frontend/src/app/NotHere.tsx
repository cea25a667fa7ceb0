import { Link } from "react-router";

/** An address that leads nowhere. */
export function NotHere() {
  return (
    <main className="mx-auto max-w-xl p-16 text-center">
      <h1 className="mb-2 text-xl font-semibold">There is no such screen</h1>
      <p className="mb-6">The address may be mistyped, or what it showed was deleted.</p>
      <Link to="/shelf" className="btn btn-primary">
        Go to the shelf
      </Link>
    </main>
  );
}
