import type { View } from "../frame/scene/rig";
import { useOpen, useOpenState, usePlanned } from "../desk/use";
import type { Lens } from "../lens/lens";
import { Failure, Loading } from "../ui/ui";
import { EditorFrame } from "./editor-frame";
import { PickedCard } from "./picked-card";
import { ViewTools } from "./view-tools";

interface Props {
  lens: Lens;
  hidden: boolean;
  flat: boolean;
  perspective: boolean;
  onPerspective: () => void;
  view?: (v: View) => void;
  /** Is told how to command the view; it must stay the same. */
  onView: (show: ((v: View) => void) | undefined) => void;
  /** Nothing is there yet, and another lens draws it. */
  onDraw: () => void;
}

/** Where the frame stands: what is drawn, what is said over it, and why there is nothing. */
export function FrameStage({ lens, hidden, flat, perspective, onPerspective, view, onView, onDraw }: Props) {
  const planned = usePlanned();
  const open = useOpen();
  const wrong = useOpenState((s) => s.planned.places);
  const frame = planned.plan?.frames[0];
  const general = Object.entries(wrong).filter(([k]) => !k.startsWith("/project/starter/answers/") && !k.startsWith("/project/sizes/"));
  return (
    <section aria-label="The frame" className={`editor-frame ${planned.old ? "is-old" : ""}`} hidden={hidden}>
      {planned.plan && frame && planned.of ? (
        <>
          <EditorFrame lens={lens} flat={flat} perspective={perspective} onPerspective={onPerspective} onView={onView} />
          {!lens.tellsPicked && <PickedCard lens={lens} />}
          <ViewTools show={view} perspective={perspective} onPerspective={onPerspective} />
          {lens.Legend && <lens.Legend />}
          {frame.joints.length === 0 && (
            <p className="stage-empty">
              {lens.id === "frame" ? (
                <>
                  Nothing here yet. Say which way the first pipe runs and how long it is: <strong>right 46</strong>
                </>
              ) : (
                <>
                  Nothing here yet.{" "}
                  <button type="button" className="btn" onClick={onDraw}>
                    Draw the first pipe
                  </button>
                </>
              )}
            </p>
          )}
        </>
      ) : (
        !planned.failure && general.length === 0 && !planned.old && <Loading what="the frame" />
      )}
      {planned.old && (
        <p role="status" className="editor-note text-warn">
          {planned.plan ? "Shown as it was before the size that cannot be read." : "It is drawn as soon as every size can be read."}
        </p>
      )}
      {general.map(([where, what]) => (
        <p key={where} role="alert" className="editor-note text-bad">
          {what}
        </p>
      ))}
      {planned.failure && <Failure why={planned.failure} retry={() => open.planner.again()} />}
    </section>
  );
}
