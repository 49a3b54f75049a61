import type { ReactNode } from "react";
import { Link } from "wouter";
import { Icon } from "./icons";
import { TopBar } from "./ui";

/** The top line of a page beside the workbench, with the way back to where it was opened from. */
export const BackBar = ({ project, children }: { project?: string; children?: ReactNode }) => (
  <TopBar
    title={
      <Link href={project ? `/p/${project}` : "/"} className="btn btn-small">
        <Icon name="left" size={18} /> {project ? "To the workbench" : "To the shelf"}
      </Link>
    }
  >
    {children}
  </TopBar>
);
