import { keyOf } from "../lens/lens";
import { lenses } from "../lens/lenses";
import { Dialog } from "../ui/dialog";
import { Manual } from "./manual";

const groups: [string, [string, string][]][] = [
  [
    "Anywhere",
    [
      ...lenses.map((l): [string, string] => [keyOf(l.id), `${l.name}: ${l.question}`]),
      ["/", "Find a command"],
      ["?", "These keys"],
      ["Ctrl Z", "Undo"],
      ["Ctrl Shift Z, Ctrl Y", "Redo"],
      ["Ctrl P", "The build sheet, to print"],
      ["A – Z", "Pick a pipe by its letter, on the frame"],
      ["I", "To the line that runs a pipe: in words"],
    ],
  ],
  [
    "On the frame",
    [
      ["A – Z", "Pick a pipe by its letter; again for the next"],
      ["→ ←", "Next and previous pipe"],
      ["↓ ↑", "Next and previous joint"],
      ["Space", "In Joints: cemented or dry; in Frame: mark a joint"],
      ["Enter, Delete", "In Frame: run a pipe from it; take it away"],
      ["Shift + arrows", "Turn the view"],
      ["Shift 1 2 3 4", "Front, side, top, corner"],
      ["+ −, Home", "Nearer, farther, the whole frame"],
      ["O", "Parallel or perspective"],
      ["Esc", "Nothing picked"],
    ],
  ],
  [
    "In the line that draws",
    [
      ["Enter", "Draw it and go on from its far end"],
      ["Shift Enter", "Draw it and stay"],
      ["Tab", "Take the word that is offered"],
      ["↑ ↓", "The words offered, or the lines before"],
      ["Esc", "No words offered"],
    ],
  ],
  [
    "When it asks what gives way",
    [
      ["1 – 9", "That answer"],
      ["↑ ↓, Enter", "From answer to answer; take it"],
      ["Esc", "Leave everything as it was"],
      ["Ctrl Z", "Undo brings the question back"],
    ],
  ],
  [
    "A frame begun from a starter",
    [
      ["Draw on it", "Its fields go on driving it, with what you drew beside them"],
      ["72 cut, on a pipe", "A size typed over a starter's is its field's from then on"],
      ["Bays 2", "What stood on a post that goes is set aside, and comes back with it"],
      ["A post taken away", "Asks first: then the frame is your own, and Bays can still be changed"],
    ],
  ],
  [
    "In the shop and at the saw",
    [
      ["A tick", "Is on record: no undo, change or reload takes it away"],
      ["Less, or a tick off", "Not done after all: that is on record too"],
      ["A size changed", "What is cut stays cut: kept, trimmed, or used for others"],
      ["A letter", "Stays what it was from the first tick or print on"],
      ["No server", "Ticks wait on the device, and go out by themselves"],
      ["Log", "All that was done, and every state of the plan before"],
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
    <Dialog title="Keys, and what can be said" onClose={onClose}>
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
      <Manual />
    </Dialog>
  );
}
