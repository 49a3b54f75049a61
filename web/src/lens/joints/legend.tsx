/** How joints are drawn. */
export function Legend() {
  return (
    <ul className="legend" aria-label="How joints are drawn">
      <li>
        <span className="collar-mark" aria-hidden="true" /> closed collar: cemented
      </li>
      <li>
        <span className="ring-mark" aria-hidden="true" /> open ring: dry
      </li>
    </ul>
  );
}
