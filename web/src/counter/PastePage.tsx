/** Anything pasted or dropped, a list, a page's source, a file: read line by line, ingredients and method; each line can be
 * put right before a sheet is begun from it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { api, ask, type ParsedRecipe, type Sheet } from "../api/client";
import { kitchenQuery, larderQuery, waysQuery } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { FileButton } from "../ui/FileButton";
import { Frame, Waiting } from "../ui/Frame";
import { newId } from "../ui/newId";
import { MethodRead } from "./MethodRead";
import { ReadRow, type Row, ready, sheetOf } from "./ReadRow";
import { slim } from "./slim";

type Understood = ParsedRecipe["method"][number]["says"][number];
const KEPT = "kemble-pasted";

export default function PastePage() {
  const kitchen = useQuery(kitchenQuery);
  const larder = useQuery(larderQuery);
  const ways = useQuery(waysQuery);
  const navigate = useNavigate();
  const client = useQueryClient();
  const [text, setText] = useState(() => sessionStorage.getItem(KEPT) ?? "");
  const [rows, setRows] = useState<Row[] | null>(null);
  const [told, setTold] = useState<ParsedRecipe | null>(null);
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const [way, setWay] = useState("");
  const [title, setTitle] = useState("Pasted list");
  useEffect(() => {
    document.title = t`Paste or drop · Kemble`;
  }, []);
  // What was pasted outlives a reload.
  useEffect(() => sessionStorage.setItem(KEPT, text), [text]);
  const drop = async (file: File | undefined) => {
    if (!file) return;
    const source = slim(await file.text());
    setText(source);
    read.mutate(source);
  };
  const read = useMutation({
    mutationFn: (source: string) => ask(api.POST("/api/read-recipe", { body: { text: source } })),
    onSuccess: (result) => {
      setTold(result);
      setLeftOut(new Set());
      setRows(result.listed.lines.map((line) => ({ ...line, out: false })));
      if (result.way) setWay(result.way);
      if (result.title) setTitle(result.title);
    },
  });
  const begin = useMutation({
    mutationFn: (made: { sheet: Sheet; says: Understood[]; uid: string }) =>
      ask(api.POST("/api/sheets", { body: { way: null, blank: false, ...made } })),
    onSuccess: (made) => {
      sessionStorage.removeItem(KEPT);
      client.invalidateQueries({ queryKey: ["sheets"] });
      navigate(`/sheets/${made.id}/mix`);
    },
  });
  if (!kitchen.data || !larder.data || !ways.data)
    return <Waiting error={kitchen.error ?? larder.error ?? ways.error} />;
  const open = rows?.filter((row) => row.kind !== "heading" && !row.out && !ready(row)) ?? [];
  const change = (at: number, next: Partial<Row>) =>
    setRows((was) => was?.map((row, i) => (i === at ? { ...row, ...next, asks: "" } : row)) ?? null);
  return (
    <Frame
      title={
        <h1 className="text-2xl sm:text-[28px]">
          <Trans>Paste or drop</Trans>
        </h1>
      }
    >
      <div className="mt-5 grid gap-x-10 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1fr)_minmax(0,2.1fr)]">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            read.mutate(slim(text));
          }}
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            void drop(event.dataTransfer.files[0]);
          }}
        >
          <label htmlFor="pasted" className="text-ink2">
            <Trans>
              A list, one ingredient a line; a whole recipe with its method; the source of a page; or drop a file here.
              A line such as “For the filling:” begins a part.
            </Trans>
          </label>
          <textarea
            id="pasted"
            className="mt-2 block min-h-72 w-full rounded-md border border-ink2 bg-sheet p-3 leading-relaxed"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="submit"
            className="pick mt-3 min-h-11 px-6"
            data-on={!rows}
            disabled={!text.trim() || read.isPending}
          >
            <Trans>Read it</Trans>
          </button>
          <FileButton
            accept=".json,.txt,.md,.html,.htm,application/json,application/ld+json,text/*"
            className="mt-3 ml-3 min-h-11"
            onFile={(file) => void drop(file)}
          >
            <Trans>Open a file</Trans>
          </FileButton>
          <ErrorNotice error={read.error} />
        </form>
        <section aria-label={t`As it was read`}>
          {rows === null ? (
            <p className="text-ink2">
              <Trans>
                Each line comes back with what was understood, what was guessed, and what could not be read. Nothing is
                dropped.
              </Trans>
            </p>
          ) : told?.source === "sheet" ? (
            <OneOfOurs
              told={told}
              busy={begin.isPending}
              onOpen={(sheet) => begin.mutate({ sheet, says: [], uid: newId() })}
            />
          ) : (
            <>
              {told?.yields && (
                <p className="text-ink2">
                  <Trans>It says: “{told.yields}”.</Trans>
                </p>
              )}
              {told?.asks.map((ask) => (
                <p key={ask} className="text-look">
                  {ask}
                </p>
              ))}
              <ul>
                {rows.map((row, i) => (
                  <ReadRow
                    // biome-ignore lint/suspicious/noArrayIndexKey: the lines of a text are told by their place
                    key={i}
                    row={row}
                    larder={larder.data}
                    kitchen={kitchen.data.kitchen}
                    onChange={(next) => change(i, next)}
                  />
                ))}
              </ul>
              {rows.length === 0 && (
                <p className="text-ink2">
                  <Trans>There is nothing in it.</Trans>
                </p>
              )}
              {told && told.method.length > 0 && (
                <MethodRead method={told.method} leftOut={leftOut} onLeaveOut={setLeftOut} />
              )}
              {rows.length > 0 && (
                <form
                  className="mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-2"
                  onSubmit={(event) => {
                    event.preventDefault();
                    const method = (told?.method ?? []).filter((_, i) => !leftOut.has(i));
                    const says = method.flatMap((line) => line.says).filter((item) => item.path);
                    begin.mutate({ sheet: sheetOf(rows, way, title), says, uid: newId() });
                  }}
                >
                  <label>
                    <Trans>
                      Called{" "}
                      <input
                        className="write w-52"
                        required
                        maxLength={120}
                        value={title}
                        onChange={(event) => setTitle(event.target.value)}
                      />
                    </Trans>
                  </label>
                  <label>
                    <Trans>
                      made as{" "}
                      <select className="write" required value={way} onChange={(event) => setWay(event.target.value)}>
                        <option value="">which way?</option>
                        {ways.data.map((item) => (
                          <option key={item.id} value={item.id}>
                            {item.name}
                          </option>
                        ))}
                      </select>
                    </Trans>
                  </label>
                  {told && told.because.length > 0 && told.way === way && (
                    <span className="text-ink2">
                      <Trans>because {told.because.join(" and ")}</Trans>
                    </span>
                  )}
                  <button type="submit" className="pick" data-on="true" disabled={open.length > 0 || begin.isPending}>
                    <Trans>Begin the sheet</Trans>
                  </button>
                  {open.length > 0 && (
                    <span role="status" className="text-look">
                      <Trans>
                        {open.length === 1 ? t`One line is` : t`${open.length} lines are`} still open: fill in, or leave
                        out.
                      </Trans>
                    </span>
                  )}
                </form>
              )}
              <ErrorNotice error={begin.error} />
            </>
          )}
        </section>
      </div>
    </Frame>
  );
}

/** A sheet of ours, whole: opened as it is, or what is wrong with it. */
function OneOfOurs(props: { told: ParsedRecipe; busy: boolean; onOpen: (sheet: Sheet) => void }) {
  const { told, busy, onOpen } = props;
  const { sheet } = told;
  if (!sheet)
    return (
      <div role="alert">
        <p className="text-lg">
          <Trans>It is a sheet of Kemble's, and something in it does not hold:</Trans>
        </p>
        {told.asks.map((ask) => (
          <p key={ask} className="text-bean">
            {ask}
          </p>
        ))}
      </div>
    );
  return (
    <div>
      <p className="text-lg">
        <Trans>
          A sheet of Kemble's: <b>{sheet.title}</b>, all of it.
        </Trans>
      </p>
      <button
        type="button"
        className="pick mt-3 min-h-11 px-6"
        data-on="true"
        disabled={busy}
        onClick={() => onOpen(sheet as Sheet)}
      >
        <Trans>Keep it here</Trans>
      </button>
    </div>
  );
}
