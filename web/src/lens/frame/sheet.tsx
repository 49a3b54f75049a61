import { useState } from "react";
import { plural } from "../../lib/format";
import { Head } from "../../ui/ui";
import { Contacts } from "../contacts";
import { Bays } from "./bays";
import { Besides } from "./besides";
import { Closing } from "./closing";
import { Customs } from "./customs";
import { Have } from "./have";
import { JointCard } from "./joint-card";
import { Links } from "./links";
import { Marked } from "./marked";
import { OwnStarter } from "./own-starter";
import { Parts } from "./parts";
import { PipeCard } from "./pipe-card";
import { Ports } from "./ports";
import { Shapes } from "./shapes";
import { WalkLine } from "./walk-line";
import { useFrame, usePicked } from "../../desk/use";

/** What goes where? From the joint that is picked on; the bays; the parts; what is open. */
export default function FrameSheet() {
  const frame = useFrame();
  const [picked] = usePicked();
  const [part, setPart] = useState("");
  const within = frame.places.some((p) => p.path === part) ? part : "";
  const joint = picked?.is === "joint" ? frame.joints.find((j) => j.id === picked.id) : undefined;
  const pipe = picked?.is === "pipe" ? frame.pipes.find((p) => p.pipe === picked.id) : undefined;
  return (
    <>
      <section aria-labelledby="frame-head">
        <Head id="frame-head" title="What goes where?">
          <span className="text-sm text-ink-2 max-sm:hidden">{plural(frame.pipes.length, "pipe")}, {plural(frame.instances.length, "part")}</span>
        </Head>
        <WalkLine joint={joint} part={within} />
        {joint && <JointCard joint={joint} />}
        {pipe && <PipeCard pipe={pipe} />}
        <Besides />
        <Marked part={within} />
      </section>
      {frame.joints.length > 0 && (
        <>
          <Bays part={within} onPart={setPart} />
          <Parts joint={joint} />
          <Links joint={joint} pipe={pipe} />
        </>
      )}
      <Shapes joint={joint} part={within} />
      <Customs />
      {frame.pipes.length > 0 && <Closing />}
      <Have />
      {frame.joints.length > 0 && (
        <section aria-labelledby="ports-head">
          <Head id="ports-head" title="Every port and end" />
          <Ports />
          <Contacts />
        </section>
      )}
      {frame.pipes.length > 0 && <OwnStarter />}
    </>
  );
}
