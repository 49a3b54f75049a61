import { useEffect, useRef, useState } from "react";
import { useFrame, usePicked } from "../../desk/use";
import { plural } from "../../lib/format";
import { intoView } from "../../lib/in-view";
import { Drawer } from "../../ui/drawer";
import { Head } from "../../ui/ui";
import { Contacts } from "../contacts";
import { Bays } from "./bays";
import { Besides } from "./besides";
import { Closing } from "./closing";
import { Customs } from "./customs";
import { Have } from "./have";
import { JointCard } from "./joint-card";
import { Lines } from "./lines";
import { Links } from "./links";
import { Marked } from "./marked";
import { OwnStarter } from "./own-starter";
import { Parts, PutOn } from "./parts";
import { PipeCard } from "./pipe-card";
import { Ports } from "./ports";
import { Shapes } from "./shapes";
import { WalkLine } from "./walk-line";

/** What goes where? The line that draws, what is picked with all that can be done to it, and drawers with the rest. */
export default function FrameSheet() {
  const frame = useFrame();
  const [picked] = usePicked();
  const [part, setPart] = useState("");
  const within = frame.places.some((p) => p.path === part) ? part : "";
  const joint = picked?.is === "joint" ? frame.joints.find((j) => j.id === picked.id) : undefined;
  const pipe = picked?.is === "pipe" ? frame.pipes.find((p) => p.pipe === picked.id) : undefined;
  const unsaid = frame.ports.open.length + frame.ports.bare.length;
  const card = useRef<HTMLDivElement>(null);
  const id = picked && `${picked.is} ${picked.id}`;
  useEffect(() => {
    if (id && card.current?.childElementCount) intoView(card.current);
  }, [id]);
  return (
    <>
      <section aria-labelledby="frame-head">
        <Head id="frame-head" title="What goes where?">
          <span className="text-sm text-ink-2 max-sm:hidden">
            {plural(frame.pipes.length, "pipe")}, {plural(frame.instances.length, "part")}
          </span>
        </Head>
        <WalkLine joint={joint} part={within} />
        <div ref={card}>
          {joint && (
            <JointCard joint={joint}>
              <PutOn joint={joint} />
            </JointCard>
          )}
          {pipe && <PipeCard pipe={pipe} />}
        </div>
        <Besides />
        <Marked part={within} />
      </section>
      <div className="drawers">
        <Lines />
        {frame.joints.length > 0 && (
          <>
            <Bays part={within} onPart={setPart} />
            <Parts />
            <Links joint={joint} pipe={pipe} />
          </>
        )}
        <Shapes joint={joint} part={within} />
        <Customs />
        {frame.pipes.length > 0 && <Closing />}
        <Have />
        {frame.joints.length > 0 && (
          <Drawer id="ports" title="Every port and end" told={unsaid > 0 ? `${unsaid} unsaid` : "all accounted for"}>
            <Ports />
            <Contacts />
          </Drawer>
        )}
        {frame.pipes.length > 0 && <OwnStarter />}
      </div>
    </>
  );
}
