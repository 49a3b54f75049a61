import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { Pick } from "./pick";

export function useTools() {
  const about = useQuery({ queryKey: ["about"], queryFn: () => ask(api.GET("/api/about")), staleTime: Number.POSITIVE_INFINITY });
  return about.data?.tools ?? [];
}

/** The cutting tool, which sets the kerf. */
export function ToolPick({ value, onChange }: { value: string; onChange: (id: string) => void }) {
  const tools = useTools();
  return (
    <div className="text-sm font-semibold">
      Cut with
      <Pick
        label="Cut with"
        className="w-full text-base font-normal"
        value={value}
        onChange={onChange}
        options={tools.map((t) => [t.id, t.name, t.note] as const)}
      />
    </div>
  );
}
