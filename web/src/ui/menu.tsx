import { DropdownMenu } from "radix-ui";
import { createContext, use } from "react";

/** The dialog that menus open in: what is outside of an open one lies behind it. */
export const MenuHome = createContext<HTMLElement | null>(null);

/** What a menu's button opens: beside the button, as tall as there is room for. */
export function Menu(props: DropdownMenu.DropdownMenuContentProps) {
  const home = use(MenuHome);
  return (
    <DropdownMenu.Portal container={home}>
      <DropdownMenu.Content align="start" sideOffset={4} collisionPadding={8} {...props} className="menu" />
    </DropdownMenu.Portal>
  );
}
