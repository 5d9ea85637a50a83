/** One sentence of the lesson over whatever page is open; it goes on by itself when that has been done. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useEffect, useRef } from "react";
import { useLocation } from "react-router";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { isDone, LESSON, type Lesson, setLesson, useLesson, wordsOf } from "./lesson";

const LOOK_MS = 250;

export default function LessonStrip() {
  const lesson = useLesson();
  return lesson ? <Strip {...lesson} /> : null;
}

function Strip({ sheet, step }: Lesson) {
  const { pathname } = useLocation();
  const now = LESSON[step];
  const place = now?.place?.(sheet);
  const away = place !== undefined && place !== pathname;
  useWitness(sheet, step, pathname, away);
  return (
    <aside
      aria-label={t`A first cake`}
      className="sticky top-0 z-30 border-b border-ink bg-sheet text-ink print:hidden"
    >
      <div className="mx-auto flex max-w-[1280px] flex-wrap items-baseline gap-x-5 gap-y-1 px-4 py-2 sm:px-10">
        <Steps at={step} />
        <p aria-live="polite" className="min-w-0 flex-1 basis-80 text-lg">
          {now ? now.says : t`That was a cake, from the bowl to the log. What you make next, the kitchen learns from.`}{" "}
          {away && (
            <TextLink to={place}>
              <Trans>Back to it</Trans>
            </TextLink>
          )}
        </p>
        {now ? (
          <LinkButton onClick={() => setLesson(null)}>
            <Trans>Leave the lesson</Trans>
          </LinkButton>
        ) : (
          <TextLink to="/" onClick={() => setLesson(null)}>
            <Trans>To the counter</Trans>
          </TextLink>
        )}
      </div>
    </aside>
  );
}

/** How far it has come. */
function Steps({ at }: { at: number }) {
  const all = LESSON.length;
  return (
    <svg width={all * 12} height="10" role="img" aria-label={t`${Math.min(at + 1, all)} of ${all}`}>
      {LESSON.map((_, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place
          key={i}
          cx={6 + i * 12}
          cy="5"
          r={i === at ? 4.5 : 3}
          fill={i <= at ? "var(--color-bean)" : "none"}
          stroke="var(--color-bean)"
        />
      ))}
    </svg>
  );
}

/** Looks at the page: marks what is to be pressed there, and goes on when the step has been done. */
function useWitness(sheet: number, step: number, pathname: string, away: boolean) {
  const words = useRef<{ step: number; were: string | null }>({ step: -1, were: null });
  useEffect(() => {
    const now = LESSON[step];
    if (!now || (away && !("at" in now.until))) return;
    let marked: Element | null = null;
    const look = () => {
      if (words.current.step !== step) words.current = { step, were: null };
      words.current.were ??= settled() ? wordsOf(now.until, document) : null;
      const there = away ? null : document.querySelector(now.points);
      if (there !== marked) {
        marked?.removeAttribute("data-lesson");
        there?.setAttribute("data-lesson", "");
        marked = there;
      }
      if (isDone(now.until, pathname, document, words.current.were)) setLesson({ sheet, step: step + 1 });
    };
    look();
    const timer = window.setInterval(look, LOOK_MS);
    return () => {
      clearInterval(timer);
      marked?.removeAttribute("data-lesson");
    };
  }, [sheet, step, pathname, away]);
}

/** No figure on the page is on its way from one value to another. */
const settled = () => document.querySelector('[data-saving="unsaved"]') === null;
