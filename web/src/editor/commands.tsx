import { Command } from "cmdk";
import { Dialog } from "../ui/dialog";
import type { CommandOf } from "../lens/lens";
import { Icon } from "../ui/icons";
import { rank } from "./rank";

/** Every command by name: type, choose, done. */
export default function Commands({ commands, onClose }: { commands: CommandOf[]; onClose: () => void }) {
  const groups = [...new Set(commands.map((c) => c.group))];
  return (
    <Dialog title="Commands" onClose={onClose} bare>
      <Command label="Commands" loop filter={rank}>
        <div className="flex items-center gap-2 border-b-2 border-ink pb-2">
          <Icon name="search" />
          <Command.Input
            autoFocus
            placeholder="What do you want to do?"
            aria-label="What do you want to do?"
            className="w-full bg-transparent text-lg outline-none"
          />
        </div>
        <Command.List className="max-h-[50vh] overflow-auto pt-2" label="Commands">
          <Command.Empty className="p-3 text-ink-2">No command has these words.</Command.Empty>
          {groups.map((g) => (
            <Command.Group key={g} heading={g} className="command-group">
              {commands
                .filter((c) => c.group === g)
                .map((c) => (
                  <Command.Item
                    key={c.name}
                    value={c.name}
                    keywords={c.also ? [c.also] : []}
                    className="command"
                    onSelect={() => {
                      onClose();
                      c.run();
                    }}
                  >
                    <span className="w-5">{c.icon && <Icon name={c.icon} size={18} />}</span>
                    <span className="flex-1">{c.name}</span>
                    {c.keys && <kbd>{c.keys}</kbd>}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Dialog>
  );
}
