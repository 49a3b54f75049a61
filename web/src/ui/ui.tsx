import type { ReactNode } from "react";
import { Link } from "wouter";
import { Refusal } from "../api/client";
import { currentTheme, setTheme } from "../lib/theme";
import { Icon, type IconName } from "./icons";

/** The page's top line. */
export function TopBar({ children, title }: { children?: ReactNode; title?: ReactNode }) {
  return (
    <header className="no-print flex flex-wrap items-center gap-x-3 gap-y-1 bg-paper px-3 py-1.5 sm:px-4">
      <Link
        href="/"
        className="flex items-center gap-2 font-display text-lg font-bold tracking-tight"
        aria-label="Sturdy Elbow, to the projects"
      >
        <img src="/icon.svg" alt="" width={28} height={28} className="rounded bg-[#f6f1e4] p-0.5" />
        <span className="hidden xl:inline">Sturdy Elbow</span>
      </Link>
      {title}
      <div className="ml-auto flex flex-wrap items-center gap-1">
        {children}
        <IconButton icon="theme" label="Light or dark" onClick={() => setTheme(currentTheme() === "dark" ? "light" : "dark")} />
      </div>
    </header>
  );
}

export function IconButton({
  icon,
  label,
  keys,
  onClick,
  disabled,
  pressed,
  className,
}: {
  icon: IconName;
  label: string;
  keys?: string;
  onClick: () => void;
  disabled?: boolean;
  pressed?: boolean;
  className?: string;
}) {
  return (
    <button
      type="button"
      className={`icon-btn ${className ?? ""}`}
      aria-label={label}
      title={keys ? `${label} (${keys})` : label}
      onClick={onClick}
      disabled={disabled}
      aria-pressed={pressed}
    >
      <Icon name={icon} />
    </button>
  );
}

export function Head({ id, title, children, level = 2 }: { id: string; title: string; children?: ReactNode; level?: 2 | 3 }) {
  const H = level === 2 ? "h2" : "h3";
  return (
    <div className={level === 2 ? "sheet-head" : "sheet-sub"}>
      <H id={id}>{title}</H>
      {children}
    </div>
  );
}

export function Loading({ what }: { what: string }) {
  return (
    <div className="grid h-full place-items-center p-8 text-ink-2" role="status">
      <span className="flex items-center gap-3">
        <span className="waiting" aria-hidden="true" />
        Getting {what} …
      </span>
    </div>
  );
}

export function Failure({ why, retry }: { why: string; retry?: () => void }) {
  return (
    <div role="alert" className="m-3 flex max-w-prose flex-wrap items-center gap-3 rounded-md border-2 border-bad bg-paper p-3">
      <p className="font-semibold">{why}</p>
      {retry && (
        <button type="button" className="btn" onClick={retry}>
          Try again
        </button>
      )}
    </div>
  );
}

/** Why something that was asked for did not come, in the line where it was to stand, and to ask again. */
export function NoAnswer({ error, retry }: { error: Error; retry: () => void }) {
  return (
    <p role="alert" className="font-semibold text-bad">
      {error instanceof Refusal ? error.message : "The server does not answer. Nothing was changed."}{" "}
      <button type="button" className="btn btn-small" onClick={retry}>
        Try again
      </button>
    </p>
  );
}

export function ExampleMark({ short }: { short?: boolean }) {
  return (
    <span className="example" title="A made-up price: put yours in">
      {short ? "made up" : "made-up prices"}
    </span>
  );
}
