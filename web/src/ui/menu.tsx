import { DropdownMenu } from "radix-ui";

/** What a menu's button opens: beside the button, as tall as there is room for. */
export function Menu(props: DropdownMenu.DropdownMenuContentProps) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content align="start" sideOffset={4} collisionPadding={8} {...props} className="menu" />
    </DropdownMenu.Portal>
  );
}
