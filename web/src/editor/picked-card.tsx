import { useFrame, useOpen, usePicked, useStyle } from "../desk/use";
import { jointTitle, pipeTitle } from "../frame/items";
import type { Lens } from "../lens/lens";
import { Len, plural, text } from "../lib/format";
import { kindWords, sizeWords } from "../lib/words";
import { IconButton } from "../ui/ui";
import { Why } from "../ui/why";

/** What is picked, in a few words, in a corner of the frame. */
export function PickedCard({ lens }: { lens: Lens }) {
  const open = useOpen();
  const frame = useFrame();
  const style = useStyle();
  const [picked, onPick] = usePicked();
  if (!picked || picked.is === "size") return null;
  const close = <IconButton icon="close" label="Nothing picked" onClick={() => onPick(undefined)} className="-my-1 -mr-1" />;
  if (picked.is === "joint") {
    const j = frame.joints.find((x) => x.id === picked.id);
    if (!j) return null;
    const press = lens.press?.(open);
    const spare = j.ports.filter((p) => p.fill === "open").length;
    return (
      <div className="picked">
        <div className="flex items-center justify-between gap-3">
          <strong>{j.kind ? `${sizeWords(j.size)} ${kindWords(j.kind)}` : "open end"}</strong>
          {close}
        </div>
        <span className="text-sm text-ink-2">
          {jointTitle(j)}
          {spare > 0 && `, ${plural(spare, "open port")}`}
        </span>
        {press && (
          <button type="button" className="btn btn-small mt-1" onClick={() => lens.keys?.space?.(open)}>
            {press} <kbd>Space</kbd>
          </button>
        )}
      </div>
    );
  }
  const pipes = frame.pipes.filter((p) => (picked.is === "letter" ? p.letter === picked.id : p.pipe === picked.id));
  const p = pipes[0];
  if (!p) return null;
  const alike = frame.pipes.filter((q) => q.letter === p.letter).length;
  return (
    <div className="picked">
      <div className="flex items-center justify-between gap-3">
        <span className="flex items-baseline gap-2">
          <span className="letter self-center">{p.letter}</span>
          <span className="font-display text-xl font-semibold">
            <Why label={`${p.letter}, cut`} sum={p.sum} total={p.cut} of={<Len nm={p.cut} style={style} step={64} />} />
          </span>
        </span>
        {close}
      </div>
      <span className="text-sm text-ink-2">
        {picked.is === "pipe" && `${pipeTitle(p)}: `}
        {sizeWords(p.size)} pipe
        {alike > 1 && `, ${alike} alike`}
        {p.visible > 0 && `, ${text(p.visible, style, 16)} shows`}
      </span>
    </div>
  );
}
