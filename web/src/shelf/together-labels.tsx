import { useSearch } from "wouter";
import LabelsPage from "../sheet/labels";
import { idOf } from "./together-server";

/** The labels of several projects that are cut together. */
export default function TogetherLabels() {
  const of = idOf((new URLSearchParams(useSearch()).get("of") ?? "").split(",").filter(Boolean));
  return <LabelsPage key={of} id={of} />;
}
