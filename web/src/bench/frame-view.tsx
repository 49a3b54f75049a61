import { useEffect, useRef } from "react";

interface Props {
  svg: string;
  lit?: string;
  onPick: (letter?: string) => void;
}

/** The drawn frame, to scale; a letter picked here is picked in the cut list. */
export function FrameView({ svg, lit, onPick }: Props) {
  const box = useRef<HTMLDivElement>(null);
  // svg is a dependency: a new drawing has to be lit again
  useEffect(() => {
    for (const e of box.current?.querySelectorAll("[data-letter]") ?? []) {
      e.classList.toggle("lit", lit !== undefined && e.getAttribute("data-letter") === lit);
    }
  }, [svg, lit]);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the cut list beside it is the way by keyboard
    // biome-ignore lint/a11y/noStaticElementInteractions: as above
    <div
      ref={box}
      className="h-full w-full [&>svg]:h-full [&>svg]:w-full"
      onClick={(e) => {
        const letter = (e.target as Element).closest("[data-letter]")?.getAttribute("data-letter");
        onPick(letter && letter !== lit ? letter : undefined);
      }}
      // drawn by our own server, which escapes every name in it
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  );
}
