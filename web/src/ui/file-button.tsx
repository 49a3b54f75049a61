import { useRef } from "react";
import { Icon } from "./icons";

interface Props {
  /** What the file is, for those who hear it. */
  label: string;
  accept: string;
  disabled?: boolean;
  onFile: (file: File) => void;
}

/** Opens a file; the same one can be opened again. */
export function FileButton({ label, accept, disabled, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="btn" disabled={disabled} onClick={() => input.current?.click()}>
        <Icon name="file" size={18} /> Open a file
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        aria-label={label}
        tabIndex={-1}
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) onFile(f);
          e.target.value = "";
        }}
      />
    </>
  );
}

/** Lists as text: CSV, tabs, or lines. */
export const listFiles = ".csv,.txt,.tsv,text/csv,text/plain";
