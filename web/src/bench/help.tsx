import { Dialog } from "../ui/dialog";

const groups: [string, [string, string][]][] = [
  [
    "Anywhere",
    [
      ["1 – 4", "Size, Joints, Buy, Cut"],
      ["/", "Find a command"],
      ["?", "These keys"],
      ["Ctrl Z", "Undo"],
      ["Ctrl Shift Z, Ctrl Y", "Redo"],
      ["Ctrl P", "The build sheet, to print"],
      ["F", "To the frame"],
    ],
  ],
  [
    "On the frame",
    [
      ["A – Z", "Pick a pipe by its letter; again for the next"],
      ["→ ←", "Next and previous pipe"],
      ["↓ ↑", "Next and previous joint"],
      ["Space", "In Joints: cemented or dry"],
      ["Shift + arrows", "Turn the view"],
      ["Shift 1 2 3 4", "Front, side, top, corner"],
      ["+ −, Home", "Nearer, farther, the whole frame"],
      ["O", "Parallel or perspective"],
      ["Esc", "Nothing picked"],
    ],
  ],
  [
    "In a length",
    [
      ["↑ ↓", "One step of the tape"],
      ["Shift ↑ ↓", "An inch, or a centimetre"],
    ],
  ],
];

export default function Help({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        {groups.map(([name, keys]) => (
          <section key={name} aria-label={name}>
            <h3 className="aisle">{name}</h3>
            <dl className="text-sm">
              {keys.map(([k, what]) => (
                <div key={k} className="flex items-baseline gap-3 py-1">
                  <dt className="w-36 shrink-0">
                    <kbd>{k}</kbd>
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
