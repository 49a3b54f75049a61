import { useQuery } from "@tanstack/react-query";
import { useId } from "react";
import { api, ask } from "../api/client";

/** The cutting tool, which sets the kerf. */
export function ToolPick({ value, onChange }: { value: string; onChange: (id: string) => void }) {
  const about = useQuery({ queryKey: ["about"], queryFn: () => ask(api.GET("/api/about")), staleTime: Number.POSITIVE_INFINITY });
  const id = useId();
  return (
    <label htmlFor={id} className="text-sm font-semibold">
      Cut with
      <select id={id} className="pick w-full text-base" value={value} onChange={(e) => onChange(e.target.value)}>
        {(about.data?.tools ?? []).map((t) => (
          <option key={t.id} value={t.id}>
            {t.name}
          </option>
        ))}
      </select>
    </label>
  );
}
