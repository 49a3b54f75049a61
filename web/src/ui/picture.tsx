import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";

/** A small picture of a fitting, as the server draws it. */
export function Picture({ kind, size = 44 }: { kind: string; size?: number }) {
  const all = useQuery({ queryKey: ["pictures"], queryFn: () => ask(api.GET("/api/pictures")), staleTime: Number.POSITIVE_INFINITY });
  return (
    // drawn by our own server from its catalog
    <span
      className="picture"
      style={{ width: size, height: size }}
      aria-hidden="true"
      dangerouslySetInnerHTML={{ __html: all.data?.[kind] ?? "" }}
    />
  );
}

/** A stick of pipe, one that is cut, a bolt or a can, drawn here since no catalog has their shape. */
export function Ware({ ware, size = 44 }: { ware: string; size?: number }) {
  return (
    <svg viewBox="-50 -50 100 100" width={size} height={size} className="frame shrink-0" aria-hidden="true">
      {ware === "hardware" ? (
        <>
          <path d="M-30-14-17-36h26l13 22-13 22h-26z" className="hub-fill" stroke="var(--edge)" strokeWidth="3" strokeLinejoin="round" />
          <path d="M-14 8v36h20V8M-14 20h20M-14 32h20" className="pipe-fill" stroke="var(--edge)" strokeWidth="3" strokeLinejoin="round" />
        </>
      ) : ware === "pipe" || ware === "service" ? (
        <>
          <path d="M-38 26 30-22 38-10-30 38z" className="pipe-fill" stroke="var(--edge)" strokeWidth="3" strokeLinejoin="round" />
          <ellipse cx="34" cy="-16" rx="6" ry="7.5" transform="rotate(-35 34 -16)" className="bore" stroke="var(--edge)" strokeWidth="3" />
          {ware === "service" && <path d="M-14-24 10 32" fill="none" stroke="var(--accent)" strokeWidth="5" strokeDasharray="9 6" />}
        </>
      ) : (
        <>
          <path
            d="M-22-18v44a22 8 0 0 0 44 0v-44"
            className={ware === "cement" ? "can-cement" : "can-primer"}
            stroke="var(--edge)"
            strokeWidth="3"
          />
          <ellipse cx="0" cy="-18" rx="22" ry="8" className="hub-fill" stroke="var(--edge)" strokeWidth="3" />
          <path d="M-6-24v-10h12v10" className="hub-fill" stroke="var(--edge)" strokeWidth="3" strokeLinejoin="round" />
        </>
      )}
    </svg>
  );
}
