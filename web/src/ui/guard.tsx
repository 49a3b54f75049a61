import type { ReactNode } from "react";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";

/**
 * Keeps what breaks inside it from taking the rest along: in its place stands what cannot be shown, why, and that nothing is lost. It is
 * tried anew by a press, and by itself as soon as what it shows is another. Of a whole page there is a way out.
 */
export function Guard({ what, of, page, children }: { what: string; of: unknown[]; page?: boolean; children: ReactNode }) {
  return (
    <ErrorBoundary resetKeys={of} fallbackRender={(p) => <Broken what={what} page={page} {...p} />}>
      {children}
    </ErrorBoundary>
  );
}

function Broken({ what, page, error, resetErrorBoundary }: FallbackProps & { what: string; page?: boolean }) {
  return (
    <section role="alert" className="m-3 grid max-w-prose gap-2 rounded-md border-2 border-bad bg-paper p-3" data-broken={what}>
      <p className="font-semibold">{what} cannot be shown: a fault of the program, and none of yours.</p>
      <p>What you typed and what was done is kept; {page ? "every other page" : "the rest of the page"} goes on.</p>
      <p className="flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={resetErrorBoundary}>
          Try again
        </button>
        <button type="button" className="btn" onClick={() => location.reload()}>
          Load the page again
        </button>
        {page && (
          <a href="/" className="btn">
            To the projects
          </a>
        )}
      </p>
      <details className="text-sm text-ink-2">
        <summary>What happened</summary>
        <p className="break-words">{error instanceof Error ? error.message : String(error)}</p>
      </details>
    </section>
  );
}
