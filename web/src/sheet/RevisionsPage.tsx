/** Every revision of a sheet that was kept: what changed, what was made from it; go back to one, or branch off. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, ask } from "../api/client";
import { kitchenQuery } from "../api/queries";
import { VerdictMark } from "../stations/mix/verdict";
import { cutText } from "../ui/cutText";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { newId } from "../ui/newId";
import { Pages } from "../ui/Pages";
import { Find } from "../ui/SearchField";
import { capital, dayOf } from "../ui/words";
import { said } from "../words/said";

export default function RevisionsPage() {
  const { timeOfDay } = useFormatters();
  const id = Number(useParams().sheetId);
  const navigate = useNavigate();
  const client = useQueryClient();
  const [page, setPage] = useState(1);
  const [find, setFind] = useState("");
  const path = { sheet_id: id };
  const key = ["revisions", id, page, find];
  const query = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}/revisions", { params: { path, query: { page, find } } })),
  });
  const kitchen = useQuery(kitchenQuery);
  const sheetAt = (number: number) =>
    ask(api.GET("/api/sheets/{sheet_id}/revisions/{number}", { params: { path: { ...path, number } } }));
  const back = useMutation({
    mutationFn: async (number: number) => {
      const sheet = await sheetAt(number);
      const over = query.data?.at ?? 1;
      return ask(
        api.PUT("/api/sheets/{sheet_id}", { params: { path }, body: { uid: newId(), revision: over, sheet } }),
      );
    },
    onSuccess: () => {
      for (const what of ["revisions", "sheet", "sheets"]) void client.invalidateQueries({ queryKey: [what] });
    },
  });
  const branch = useMutation({
    mutationFn: async (number: number) => {
      const sheet = await sheetAt(number);
      const title = t`${cutText(sheet.title, 100)}, from revision ${number}`;
      return ask(
        api.POST("/api/sheets", { body: { uid: newId(), way: null, blank: false, sheet: { ...sheet, title } } }),
      );
    },
    onSuccess: (made) => navigate(`/sheets/${made.id}/mix`),
  });
  const name = useMutation({
    mutationFn: ({ number, words }: { number: number; words: string }) =>
      ask(
        api.PUT("/api/sheets/{sheet_id}/revisions/{number}", {
          params: { path: { ...path, number } },
          body: { name: words },
        }),
      ),
    onSuccess: () => void client.invalidateQueries({ queryKey: ["revisions", id] }),
  });
  useEffect(() => {
    document.title = t`Revisions · Kemble`;
  }, []);
  if (!query.data || !kitchen.data) return <Waiting error={query.error ?? kitchen.error} />;
  const { title, at, revisions, pages, total } = query.data;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Revisions of {title}</Trans>
        </h1>
      }
    >
      <p className="mt-4 flex flex-wrap items-end gap-6">
        <TextLink to={`/sheets/${id}/mix`}>
          <Trans>Back to the sheet</Trans>
        </TextLink>
        <Find
          label={t`Find a revision by its name`}
          value={find}
          onChange={(words) => {
            setFind(words);
            setPage(1);
          }}
        />
      </p>
      <ErrorNotice error={back.error ?? branch.error ?? name.error} />
      <ol className="mt-4 list-none p-0">
        {revisions.map((revision) => (
          <li
            key={revision.number}
            className="hairline grid gap-x-8 gap-y-1 py-3 md:grid-cols-[13rem_minmax(0,1fr)_auto]"
          >
            <p>
              <b className="text-xl">{revision.number}</b>
              {revision.number === at && (
                <span className="text-green">
                  <Trans> as it stands</Trans>
                </span>
              )}
              <span className="block text-ink2">
                {dayOf(revision.saved, zone)}, {timeOfDay(revision.saved, zone)}
              </span>
            </p>
            <div className="min-w-0">
              <NameOf
                value={revision.name}
                number={revision.number}
                onName={(words) => name.mutate({ number: revision.number, words })}
              />
              <p>{revision.changed.length ? `${capital(revision.changed.join("; "))}.` : t`As it began.`}</p>
              {revision.batches.map((batch) => (
                <Link
                  key={batch.batch}
                  to={`/log/${batch.batch}`}
                  className="mr-4 inline-flex items-center gap-1 text-ink"
                >
                  <svg width="22" height="18" aria-hidden="true">
                    <VerdictMark verdict={batch.verdict} x={11} y={9} size={7} />
                  </svg>
                  {dayOf(batch.made, zone)}, {said(batch.verdict)}
                </Link>
              ))}
            </div>
            <p className="flex flex-wrap gap-x-5">
              {revision.number !== at && (
                <LinkButton onClick={() => back.mutate(revision.number)}>
                  <Trans>go back to it</Trans>
                </LinkButton>
              )}
              <LinkButton onClick={() => branch.mutate(revision.number)}>
                <Trans>a sheet of its own</Trans>
              </LinkButton>
            </p>
          </li>
        ))}
      </ol>
      <Pages page={query.data.page} pages={pages} total={total} what="revisions" onTurn={setPage} />
    </Frame>
  );
}

function NameOf({ value, number, onName }: { value: string; number: number; onName: (words: string) => void }) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  return (
    <input
      aria-label={t`A name for revision ${number}`}
      className="w-full max-w-80 border-b border-transparent bg-transparent font-bold placeholder:font-normal placeholder:text-ink2 hover:border-ink2"
      placeholder={t`give it a name`}
      maxLength={60}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => typed.trim() !== value && onName(typed.trim())}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
    />
  );
}
