// One hand's icons: a 20 × 20 field, strokes of 1.7 with round ends.
const drawn = {
  size: "M3 13.5h14v-5H3zM6 8.5v2M9 8.5v3M12 8.5v2M15 8.5v3",
  frame: "M4 16.5V5.5h12v11M4 11h12M3 16.5h2M15 16.5h2",
  joints: "M2.5 10h5M12.5 10h5M7.5 6.5h5v7h-5z",
  buy: "M3 4h2.2l1.7 8.5h8l1.6-6H6M8 16.2a.6.6 0 1 0 .1 0M14 16.2a.6.6 0 1 0 .1 0",
  cut: "M3 6.5h14v7H3zM8 4v12M12.5 4v12",
  log: "M5 3.5h10v13H5zM7.5 7h5M7.5 10h5M7.5 13h3",
  undo: "M7.5 5 4 8.5 7.5 12M4.5 8.5H12a4 4 0 0 1 0 8H9",
  redo: "M12.5 5 16 8.5 12.5 12M15.5 8.5H8a4 4 0 0 0 0 8h3",
  keys: "M2.5 6h15v8.5h-15zM5.5 9h.01M8.5 9h.01M11.5 9h.01M14.5 9h.01M7 12h6",
  command: "M12.5 3.5l-5 13",
  print: "M6 7.5V3h8v4.5M6 14H3.5V7.5h13V14H14M6 12h8v5H6z",
  more: "M4.4 10a.6.6 0 1 0 1.2 0a.6.6 0 1 0-1.2 0M9.4 10a.6.6 0 1 0 1.2 0a.6.6 0 1 0-1.2 0M14.4 10a.6.6 0 1 0 1.2 0a.6.6 0 1 0-1.2 0",
  corner: "M10 3l6 3.5v7L10 17l-6-3.5v-7zM4 6.5l6 3.5 6-3.5M10 10v7",
  front: "M4.5 4.5h11v11h-11z",
  side: "M8 4.5h5v11H8z",
  top: "M4 8h12v5H4z",
  fit: "M3.5 7.5v-4h4M12.5 3.5h4v4M16.5 12.5v4h-4M7.5 16.5h-4v-4",
  perspective: "M4 5l5 1.8v6.4L4 15zM9 6.8l7-1.3v9l-7-1.3",
  search: "M8.5 3.5a5 5 0 1 0 .01 0M12.3 12.3 16.5 16.5",
  close: "M5 5l10 10M15 5 5 15",
  plus: "M10 4v12M4 10h12",
  file: "M5 3h7l3 3v11H5zM12 3v3h3",
  copy: "M7.5 6.5h9v10h-9zM4 13V3.5h8.5",
  rename: "M4 16l1-4 8-8 3 3-8 8zM11.5 5.5l3 3",
  bin: "M4.5 6h11M8 6V4h4v2M6 6l.8 10.5h6.4L14 6M8.8 9v5M11.2 9v5",
  check: "M4.5 10.5l3.5 3.5 7.5-8",
  chevron: "M6 8l4 4 4-4",
  left: "M12 5l-5 5 5 5",
  rack: "M4 3v14M16 3v14M4 6.5h12M4 10.5h12M4 14.5h12",
  prices: "M3.5 10.5l7-7h6v6l-7 7zM13.2 6.8h.01",
  theme: "M10 3.5a6.5 6.5 0 1 0 .01 0M10 3.5v13",
  list: "M7 5.5h10M7 10h10M7 14.5h10M3.5 5.5h.01M3.5 10h.01M3.5 14.5h.01",
} as const;

export type IconName = keyof typeof drawn;

export function Icon({ name, size = 20, className }: { name: IconName; size?: number; className?: string }) {
  return (
    <svg
      viewBox="0 0 20 20"
      width={size}
      height={size}
      className={`shrink-0 ${className ?? ""}`}
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <path d={drawn[name]} />
    </svg>
  );
}
