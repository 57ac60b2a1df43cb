/** The answer of one whose picture looks like the sheet. */
export function LooksLikeThis({ onClick }: { readonly onClick: () => void }) {
  return (
    <button type="button" className="btn btn-primary flex-fill" onClick={onClick}>
      It looks like this <span className="key">Enter</span>
    </button>
  );
}
