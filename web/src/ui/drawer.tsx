import { type ReactNode, useId, useState } from "react";
import { intoView } from "../lib/in-view";
import { Icon } from "./icons";

interface Props {
  id: string;
  title: string;
  /** What is in it, in a few words, for when it is shut. */
  told?: ReactNode;
  /** It begins open; what the builder does with it counts from then on. */
  begin?: boolean;
  /** It comes open, for a reason: a form in it was asked for, or it has something to say. It can be shut again, until there is another reason. */
  force?: boolean | string;
  /** A button beside its title. */
  action?: ReactNode;
  children: ReactNode;
}

const chosen = new Map<string, boolean>();

/** A part of a sheet that opens when it is wanted, and stays as it was left while the page is open. */
export function Drawer({ id, title, told, begin, force, action, children }: Props) {
  const [own, setOwn] = useState(chosen.get(id));
  const [pulled, setPulled] = useState(false);
  const [shut, setShut] = useState(false);
  const [forced, setForced] = useState(force);
  if (forced !== force) {
    setForced(force);
    setShut(false);
  }
  const body = useId();
  const open = force ? !shut : (own ?? begin ?? false);
  return (
    <section aria-labelledby={`${id}-head`} className="drawer">
      <div className="drawer-head">
        <h2 id={`${id}-head`}>
          <button
            type="button"
            aria-expanded={open}
            aria-controls={body}
            onClick={() => {
              if (force) setShut(open);
              else {
                chosen.set(id, !open);
                setOwn(!open);
              }
              setPulled(!open);
            }}
          >
            <Icon name="chevron" size={16} className={open ? "" : "-rotate-90"} />
            <span>{title}</span>
            {!open && told && <span className="drawer-told">{told}</span>}
          </button>
        </h2>
        {action}
      </div>
      {open && (
        <div id={body} ref={pulled ? intoView : undefined} className="drawer-body">
          {children}
        </div>
      )}
    </section>
  );
}
