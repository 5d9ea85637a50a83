/** Why something was not done: the first problem as a sentence. Nothing when all is well. */

import { Refused, sentence } from "../api/client";

export function ErrorNotice({ error, className = "mt-3" }: { error: Error | null | undefined; className?: string }) {
  if (!error) return null;
  const problem = error instanceof Refused ? error.problems[0] : undefined;
  return (
    <p role="alert" className={`border-l-4 border-bean pl-4 ${className}`}>
      {problem ? sentence(problem) : error.message}
    </p>
  );
}
