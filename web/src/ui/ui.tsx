import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Link } from "wouter";
import type { Term } from "../api/client";
import { currentTheme, setTheme } from "../lib/theme";

/** The page's top line. */
export function TopBar({ children, title }: { children?: ReactNode; title?: ReactNode }) {
  return (
    <header className="no-print flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ink bg-paper px-4 py-2">
      <Link href="/" className="flex items-center gap-2 font-display text-lg font-bold tracking-tight">
        <img src="/icon.svg" alt="" width={26} height={26} className="rounded bg-[#f6f1e4] p-0.5" />
        Sturdy Elbow
      </Link>
      {title}
      <div className="ml-auto flex flex-wrap items-center gap-2">
        {children}
        <button
          type="button"
          className="btn btn-bare"
          aria-label="Light or dark"
          title="Light or dark"
          onClick={() => setTheme(currentTheme() === "dark" ? "light" : "dark")}
        >
          <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
            <circle cx="9" cy="9" r="7" fill="none" stroke="currentColor" strokeWidth="1.8" />
            <path d="M9 2a7 7 0 0 1 0 14z" fill="currentColor" />
          </svg>
        </button>
      </div>
    </header>
  );
}

/** A number that answers "why?" with its sum. */
export function Why({ of, sum, total, label }: { of: ReactNode; sum: Term[]; total: number; label: string }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          className="rounded underline decoration-rule decoration-dotted decoration-2 underline-offset-4 hover:decoration-accent"
        >
          <span className="sr-only">{label}: </span>
          {of}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          aria-label="How this number comes about"
          className="z-20 max-h-[60vh] max-w-sm overflow-auto rounded-md border-2 border-ink bg-paper p-3 text-sm text-ink shadow-lg"
        >
          <table className="w-full">
            <tbody>
              {sum.map((t, i) => (
                <tr key={i}>
                  <td className="py-0.5 pr-4">{t.label}</td>
                  <td className="text-right whitespace-nowrap">
                    {i > 0 && t.value >= 0 && "+ "}
                    {exact(t.value)}
                  </td>
                </tr>
              ))}
              <tr className="border-t-2 border-ink font-bold">
                <td className="pt-1 pr-4">makes</td>
                <td className="pt-1 text-right">{exact(total)}</td>
              </tr>
            </tbody>
          </table>
          <Popover.Arrow className="fill-ink" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Inches to the thousandth: the terms of a sum are finer than a tape. */
function exact(nm: number): string {
  const v = Math.abs(nm) / 25_400_000;
  return `${nm < 0 ? "− " : ""}${v.toFixed(3)}″`;
}

export function Loading({ what }: { what: string }) {
  return (
    <p className="p-8 text-ink-2" role="status">
      Getting {what} …
    </p>
  );
}

export function Failure({ why, retry }: { why: string; retry?: () => void }) {
  return (
    <div role="alert" className="m-6 max-w-prose rounded-md border-2 border-bad bg-paper p-4">
      <p className="font-semibold">{why}</p>
      {retry && (
        <button type="button" className="btn mt-3" onClick={retry}>
          Try again
        </button>
      )}
    </div>
  );
}
