import type { View } from "../frame/scene/rig";
import { IconButton } from "../ui/ui";

/** The standard views, in a corner of the frame. */
export function ViewTools({
  show,
  perspective,
  onPerspective,
}: {
  show?: (v: View) => void;
  perspective: boolean;
  onPerspective: () => void;
}) {
  if (!show) return null;
  return (
    <div className="view-tools" role="toolbar" aria-label="View">
      <IconButton icon="front" label="From the front" keys="Shift 1" onClick={() => show("front")} />
      <IconButton icon="side" label="From the side" keys="Shift 2" onClick={() => show("side")} />
      <IconButton icon="top" label="From above" keys="Shift 3" onClick={() => show("top")} />
      <IconButton icon="corner" label="From the corner" keys="Shift 4" onClick={() => show("corner")} />
      <IconButton icon="fit" label="The whole frame" keys="Home" onClick={() => show("fit")} />
      <IconButton icon="perspective" label="Perspective" keys="O" pressed={perspective} onClick={onPerspective} />
    </div>
  );
}
