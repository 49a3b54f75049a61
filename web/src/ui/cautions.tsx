import { Icon } from "./icons";

/** The usual cautions for this job. */
export function Cautions({ all, open }: { all: string[]; open?: boolean }) {
  return (
    <details className="care" open={open}>
      <summary>
        <Icon name="chevron" size={16} /> Take care
      </summary>
      <ul className="list-disc pt-1 pl-6 text-sm">
        {all.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </details>
  );
}
