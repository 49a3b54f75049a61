/** What was changed last, and the way back. */
export const UndoLine = ({ label, onUndo }: { label: string; onUndo: () => void }) => (
  <p role="status" className="flex flex-wrap items-center gap-3 text-sm">
    {label}.
    <button type="button" className="link" onClick={onUndo}>
      Undo
    </button>
  </p>
);
