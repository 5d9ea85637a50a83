/** "?": how this page is read, and its keys, on every page. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import { readingAt } from "./drawingHelp";
import { isTyping, keysAt, nameOfKey } from "./keys";

export function HelpSlip() {
  const { pathname } = useLocation();
  const [open, setOpen] = useState(false);
  const reading = readingAt(pathname);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "?" || event.ctrlKey || event.metaKey || isTyping(event.target)) return;
      event.preventDefault();
      setOpen((was) => !was);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="min-h-8 px-2 text-ink2 print:hidden" aria-label={t`? help and keys`}>
        <kbd className="rounded border border-ink px-1.5 text-ink">?</kbd>{" "}
        <span className="hidden sm:inline">
          <Trans>help</Trans>
        </span>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 max-h-[86vh] w-[min(30rem,calc(100vw-24px))] -translate-1/2 overflow-auto rounded-md border border-ink bg-sheet p-6"
        >
          <Dialog.Title className="text-2xl">
            <Trans>Help with this page</Trans>
          </Dialog.Title>
          {reading && (
            <>
              <h2 className="mt-3 text-xl">{reading.head}</h2>
              {reading.says.map((says) => (
                <p key={says} className="mt-1.5">
                  {says}
                </p>
              ))}
            </>
          )}
          <h2 className="mt-5 text-xl">
            <Trans>Keys</Trans>
          </h2>
          <dl className="mt-1">
            {keysAt(pathname).map((row) => (
              <div key={row.keys.join()} className="hairline flex items-baseline gap-4 py-1.5">
                <dt className="w-32 shrink-0">
                  {row.keys.map((key) => (
                    <kbd key={key} className="mr-1.5 rounded border border-ink px-1.5 text-ink">
                      {nameOfKey(key)}
                    </kbd>
                  ))}
                </dt>
                <dd className="m-0">{row.does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="pick mt-4 min-h-16 px-8">
            <Trans>Close</Trans>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
