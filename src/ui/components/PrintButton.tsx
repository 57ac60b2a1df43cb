'use client';

/** The steps on paper, for a machine without a screen beside it. */
export function PrintButton() {
  return (
    <p className="no-print">
      <button
        type="button"
        className="btn-plain"
        onClick={() => {
          window.print();
        }}
      >
        Print these steps
      </button>
    </p>
  );
}
