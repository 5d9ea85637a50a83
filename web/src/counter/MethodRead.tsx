/** The method line by line, with what each was understood to say of the sheet; any of it can be left out. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ParsedRecipe } from "../api/client";
import { capital } from "../ui/words";

interface Props {
  method: ParsedRecipe["method"];
  leftOut: ReadonlySet<number>;
  onLeaveOut: (leftOut: ReadonlySet<number>) => void;
}

export function MethodRead({ method, leftOut, onLeaveOut }: Props) {
  const turn = (at: number) => {
    const next = new Set(leftOut);
    if (!next.delete(at)) next.add(at);
    onLeaveOut(next);
  };
  return (
    <section aria-label={t`The method`} className="mt-5">
      <h2 className="text-xl">
        <Trans>The method</Trans>
      </h2>
      <ul>
        {method.map((line, i) => {
          const says = line.says.filter((say) => say.path !== "way" && say.words);
          const words = says.filter((say) => say.path).map((say) => say.words);
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: the lines of a text are told by their place
            <li key={i} className="hairline grid gap-x-4 py-1.5 sm:grid-cols-[minmax(0,1fr)_auto]">
              <div>
                <span className={leftOut.has(i) ? "line-through" : ""}>{line.text}</span>
                <span className="block text-sm text-ink2">
                  {words.length ? t`understood: ${words.join("; ")}` : t`nothing of the sheet's`}
                </span>
                {says.map(
                  (say) =>
                    say.asks && (
                      <span key={say.words + say.asks} className="block text-look">
                        {say.path ? say.asks : `${capital(say.words)}: ${say.asks}`}
                      </span>
                    ),
                )}
              </div>
              {words.length > 0 && (
                <label className="whitespace-nowrap text-ink2">
                  <Trans>
                    <input
                      type="checkbox"
                      className="mr-1 size-4 align-[-2px] accent-bean"
                      checked={leftOut.has(i)}
                      onChange={() => turn(i)}
                    />
                    leave out
                  </Trans>
                </label>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
