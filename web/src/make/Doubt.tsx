/** A reading that cannot be is asked about before it counts. */

export function Doubt({ says, onSure, onAgain }: { says: string; onSure: () => void; onAgain: () => void }) {
  return (
    <div role="alert" className="mt-2 w-full border-l-4 border-bean pl-4 text-lg">
      <p>{says} Read it again, or say that it is so.</p>
      <p className="mt-2 flex flex-wrap gap-3">
        <button type="button" className="pick min-h-16 px-6" data-on="true" onClick={onAgain}>
          Read it again
        </button>
        <button type="button" className="pick min-h-16 px-6" onClick={onSure}>
          It is so
        </button>
      </p>
    </div>
  );
}
