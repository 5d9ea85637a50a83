/** A step of the cook's own put into the method: one that many cooks do, from a list, or any other by its name. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { commonStepsQuery } from "../api/queries";
import type { Editing } from "../sheet/useSheet";
import { ActionMenu } from "../ui/ActionMenu";
import { withNewOwn } from "./entries";

interface Props {
  editing: Editing;
  /** The steps of the method, in order. */
  steps: string[];
  /** The step that it comes after, where it has no usual place here. */
  after: string;
  onAdded: (own: string) => void;
}

export function AddStep({ editing, steps, after, onAdded }: Props) {
  const common = useQuery(commonStepsQuery);
  const [title, setTitle] = useState("");
  const add = (words: string, id = "") => {
    const usual = common.data?.find((step) => step.id === id)?.comes_after ?? [];
    const place = steps.filter((step) => usual.includes(step)).at(-1) ?? after;
    const [sheet, own] = withNewOwn(editing.sheet, words, place, id);
    editing.edit(sheet);
    onAdded(own);
  };
  return (
    <form
      className="flex flex-wrap items-center gap-x-4 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (!title.trim()) return;
        add(title.trim());
        setTitle("");
      }}
    >
      <input
        aria-label={t`A step of your own`}
        placeholder={t`a step of your own`}
        className="write w-52"
        maxLength={80}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
      />
      <button type="submit" className="pick !min-h-9" disabled={!title.trim()}>
        <Trans>add it</Trans>
      </button>
      <ActionMenu
        label={t`or one that many cooks do`}
        choices={(common.data ?? []).map((step) => ({ id: step.id, words: step.title }))}
        onPick={(id) => add(common.data?.find((step) => step.id === id)?.title ?? id, id)}
      >
        <Trans>or one that many cooks do</Trans>
      </ActionMenu>
    </form>
  );
}
