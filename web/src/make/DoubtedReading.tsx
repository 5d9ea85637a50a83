/** A reading that cannot be is asked about before it counts. */

import { Trans } from "@lingui/react/macro";

export function Doubt({ says, onSure, onAgain }: { says: string; onSure: () => void; onAgain: () => void }) {
  return (
    <div role="alert" className="mt-2 w-full border-l-4 border-bean pl-4 text-lg">
      <p>
        <Trans>{says} Read it again, or say that it is so.</Trans>
      </p>
      <p className="mt-2 flex flex-wrap gap-3">
        <button type="button" className="pick min-h-16 px-6" data-on="true" onClick={onAgain}>
          <Trans>Read it again</Trans>
        </button>
        <button type="button" className="pick min-h-16 px-6" onClick={onSure}>
          <Trans>It is so</Trans>
        </button>
      </p>
    </div>
  );
}
