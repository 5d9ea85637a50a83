/** Shopping: what any number of sheets need together, in packs, less what is in the larder. To print, copy, tick off. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ask, type KitchenSettings, type ShoppingLine, type ShoppingList } from "../api/client";
import { limit } from "../api/limits";
import { kitchenQuery, occasionsQuery, sheetsQuery } from "../api/queries";
import { useKitchenSave } from "../sheet/useKitchenSave";
import { WeightField } from "../ui/AmountField";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { type Formatters, useFormatters } from "../ui/formatters";
import { NumberField } from "../ui/NumberField";
import { Find } from "../ui/SearchField";
import { plural } from "../ui/words";
import { fixed } from "../words/numbers";
import { ToCarry } from "./ToCarry";

const KEPT = "kemble-shopping";
type Wanted = Record<number, number>;

const kept = (): Wanted | null => {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "null");
  } catch {
    return null;
  }
};

export default function ShoppingPage() {
  const [find, setFind] = useState("");
  const sheets = useQuery(sheetsQuery(1, find, 50));
  const occasions = useQuery(occasionsQuery);
  const kitchen = useQuery(kitchenQuery);
  const [chosen, setChosen] = useState<Wanted | null>(kept);
  useEffect(() => {
    document.title = t`Shopping · Kemble`;
  }, []);
  useEffect(() => {
    if (chosen) localStorage.setItem(KEPT, JSON.stringify(chosen));
  }, [chosen]);
  // Nothing chosen yet: what is planned is what will be bought for.
  const planned: Wanted = Object.fromEntries(
    (occasions.data ?? []).flatMap((item) => item.sheets.map((sheet) => [sheet, 1])),
  );
  const wanted = chosen ?? planned;
  const asked = Object.entries(wanted)
    .filter(([, times]) => times > 0)
    .map(([sheet, times]) => ({ sheet: Number(sheet), times }));
  const list = useQuery({
    queryKey: ["shopping", asked, kitchen.data?.kitchen.stock],
    enabled: occasions.data != null,
    placeholderData: (before) => before,
    queryFn: () => ask(api.POST("/api/shopping", { body: { wanted: asked } })),
  });
  if (!sheets.data || !occasions.data || !kitchen.data)
    return <Waiting error={sheets.error ?? occasions.error ?? kitchen.error} />;
  return (
    <Frame
      title={
        <h1 className="text-2xl sm:text-[28px]">
          <Trans>Shopping</Trans>
        </h1>
      }
    >
      <div className="mt-5 grid gap-x-12 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1fr)_minmax(0,2fr)]">
        <section aria-labelledby="for">
          <h2 id="for" className="text-xl">
            <Trans>For</Trans>
          </h2>
          {(sheets.data.pages > 1 || find) && <Find value={find} onChange={setFind} />}
          <ul>
            {sheets.data.sheets.map((sheet) => (
              <li key={sheet.id} className="hairline flex items-baseline justify-between gap-3 py-1">
                <label>
                  <input
                    type="checkbox"
                    className="mr-2 size-4.5 align-[-3px] accent-bean"
                    checked={Boolean(wanted[sheet.id])}
                    onChange={(event) => setChosen({ ...wanted, [sheet.id]: event.target.checked ? 1 : 0 })}
                  />
                  {sheet.title}
                </label>
                {wanted[sheet.id] ? (
                  <NumberField
                    label={t`${sheet.title}, times`}
                    hideLabel
                    value={wanted[sheet.id] ?? 1}
                    unit="×"
                    decimals={0}
                    within={limit("WantedSheet.times")}
                    width="2.6rem"
                    onChange={(times) => setChosen({ ...wanted, [sheet.id]: Math.round(times) })}
                  />
                ) : null}
              </li>
            ))}
          </ul>
        </section>
        <section data-paper aria-label={t`The list`}>
          {list.data && (
            <h2 className="mb-2 hidden text-xl print:block">
              <Trans>To buy for {madeOf(list.data)}</Trans>
            </h2>
          )}
          <ErrorNotice error={list.error} />
          {asked.length === 0 && (
            <p className="text-ink2">
              <Trans>Choose what you mean to make.</Trans>
            </p>
          )}
          {list.data && asked.length > 0 && <List list={list.data} kitchen={kitchen.data.kitchen} />}
        </section>
      </div>
    </Frame>
  );
}

/** Which sheets a list is for, in words. */
const madeOf = (list: ShoppingList) => [...new Set(list.lines.flatMap((line) => line.sheets))].sort().join(", ");

function List({ list, kitchen }: { list: ShoppingList; kitchen: KitchenSettings }) {
  const [copied, setCopied] = useState(false);
  const shelves = [...new Set(list.lines.map((line) => line.shelf))];
  const [prices, setPrices] = useState(list.cost != null);
  return (
    <>
      <ToCarry list={list} />
      <div className="flex flex-wrap items-baseline gap-3 print:hidden">
        <button
          type="button"
          className="pick"
          onClick={async () => {
            await navigator.clipboard.writeText(list.text);
            setCopied(true);
          }}
        >
          {copied ? t`Copied` : t`Copy as text`}
        </button>
        <button type="button" className="pick" onClick={() => window.print()}>
          <Trans>Print</Trans>
        </button>
        <label className="ml-auto text-ink2">
          <Trans>
            <input
              type="checkbox"
              className="mr-1.5 size-4 align-[-2px] accent-bean"
              checked={prices}
              onChange={(event) => setPrices(event.target.checked)}
            />
            prices
          </Trans>
        </label>
      </div>
      {list.notes.map((note) => (
        <p key={note} className="mt-2 border-l-4 border-amber pl-4">
          {note}
        </p>
      ))}
      {shelves.map((shelf) => (
        <div key={shelf} className="mt-4">
          <h2 className="text-lg">{shelf}</h2>
          <ul>
            {list.lines
              .filter((line) => line.shelf === shelf)
              .map((line) => (
                <Thing key={line.ingredient} line={line} kitchen={kitchen} prices={prices} />
              ))}
          </ul>
        </div>
      ))}
      <p className="mt-4">
        {list.allergens.length > 0 && (
          <Trans>
            <b className="text-look">Allergens:</b> {list.allergens.join(", ")}. Read the packets.{" "}
          </Trans>
        )}
        {list.cost != null && (
          <b>
            <Trans>
              About {fixed(list.cost, 2)} {list.currency}
              {list.unpriced > 0 && (
                <span className="font-normal text-ink2">
                  <Trans>, {list.unpriced} without a price</Trans>
                </span>
              )}
              .
            </Trans>
          </b>
        )}
      </p>
    </>
  );
}

const grams = (formatters: Formatters, mass: number) => formatters.bulkWords(mass, 2);

function Thing({ line, kitchen, prices }: { line: ShoppingLine; kitchen: KitchenSettings; prices: boolean }) {
  const formatters = useFormatters();
  const [ticked, setTicked] = useState(false);
  const saving = useKitchenSave();
  const save = (change: Partial<KitchenSettings["stock"][number]>) => {
    const was = kitchen.stock.find((item) => item.ingredient === line.ingredient) ?? {
      ingredient: line.ingredient,
      grams: 0,
      pack_g: null,
      price: null,
    };
    saving.save(kitchen, {
      ...kitchen,
      stock: [...kitchen.stock.filter((item) => item !== was), { ...was, ...change }],
    });
  };
  const none = line.buy_g <= 1e-6;
  const priced = kitchen.stock.find((item) => item.ingredient === line.ingredient)?.price ?? null;
  return (
    <li className={`hairline grid grid-cols-[auto_1fr_auto] items-baseline gap-x-3 py-1 ${none ? "text-ink2" : ""}`}>
      <input
        type="checkbox"
        aria-label={t`${line.name} is in the basket`}
        className="size-4.5 self-center accent-bean"
        checked={ticked || none}
        disabled={none}
        onChange={(event) => setTicked(event.target.checked)}
      />
      <span className={ticked ? "line-through" : ""}>
        <b>{line.name}</b>
        {none
          ? t`, in the larder`
          : line.packs && line.pack_g
            ? t`: ${plural(line.packs, line.pack)} of ${grams(formatters, line.pack_g)}`
            : t`: ${grams(formatters, line.buy_g)}, loose or made at home`}
        <span className="block text-sm text-ink2">
          {[
            t`${grams(formatters, line.need_g)} for ${line.sheets.join(", ")}`,
            line.pieces != null && line.group === "leaf" && t`${Math.ceil(line.pieces)} pieces`,
            line.spare_g > 0 && t`${grams(formatters, line.spare_g)} of it to spare`,
            line.packs && line.left_g > 1 ? t`${grams(formatters, line.left_g)} left over` : "",
            line.allergens.length > 0 && line.allergens.join(", "),
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
        {!none && line.look_alike && <span className="block text-sm text-look">{line.look_alike}</span>}
      </span>
      <span className="text-right print:hidden">
        <WeightField
          label={t`${line.name} in the larder`}
          hideLabel
          value={line.have_g || null}
          after={t` there`}
          decimals={0}
          within={limit("LarderStock.grams")}
          width="3.6rem"
          onClear={() => save({ grams: 0 })}
          onChange={(have) => save({ grams: have })}
        />
        {prices && (
          <NumberField
            className="ml-3"
            label={t`${line.name}, price of a pack`}
            hideLabel
            value={priced}
            unit={t`${kitchen.currency || ""} a pack`}
            decimals={2}
            within={limit("LarderStock.price")}
            width="3.6rem"
            onClear={() => save({ price: null })}
            onChange={(price) => save({ price })}
          />
        )}
      </span>
    </li>
  );
}
