/** The larder: what each ingredient is made of, drawn; the cook's own figures, and ingredients of their own. */

import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { IngredientCard, KitchenSettings } from "../api/client";
import { limit } from "../api/limits";
import { kitchenQuery, larderQuery } from "../api/queries";
import { useKitchenSave } from "../kitchen/useKitchenSave";
import { Find } from "../ui/Find";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustDropped";
import { fill, MATERIAL_WORDS } from "../ui/materials";
import { NumberField } from "../ui/NumberField";
import { PickRow, Row } from "../ui/Row";
import { Sorry } from "../ui/Sorry";

const COMPONENTS = ["water", "starch", "sugar", "fat", "protein", "fibre", "salt", "other"] as const;
type Component = (typeof COMPONENTS)[number];
const MATERIAL: Record<Component, string> = {
  water: "water",
  starch: "starch",
  sugar: "sugar",
  fat: "fat",
  protein: "other",
  fibre: "other",
  salt: "other",
  other: "other",
};
const GROUPS: [IngredientCard["group"], string][] = [
  ["flour", "flour"],
  ["grain", "whole grain"],
  ["legume", "dry beans"],
  ["liquid", "liquids"],
  ["sugar", "sugars, honeys, syrups"],
  ["fat", "fats and oils"],
  ["egg", "eggs"],
  ["nut", "nuts and seeds"],
  ["fruit", "fruit"],
  ["paste", "pastes and purées"],
  ["flavour", "flavours"],
  ["herb", "green herbs"],
  ["savoury", "savoury"],
  ["salt", "salt"],
  ["dust", "starches and dusts"],
  ["leaf", "leaves, paper, string"],
];

type Own = KitchenSettings["ingredients"][number];

const blank: Own = {
  id: "",
  name: "",
  aliases: [],
  group: "flour",
  per_100_g: { water: 12, starch: 80, sugar: 0, fat: 1, protein: 6, fibre: 1, salt: 0, other: 0 },
  density: { spooned: 0.6 },
  g_per_piece: null,
  packs: {},
  allergens: [],
  perishable: false,
  tags: [],
  source: "cook",
  look_alike: "",
  caution: "",
};

const own = ({ own: _own, figures: _figures, ...item }: IngredientCard): Own => ({ ...item, source: "cook" });

export default function LarderPage() {
  const larder = useQuery(larderQuery);
  const kitchen = useQuery(kitchenQuery);
  const [wanted, setWanted] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  useEffect(() => {
    document.title = "Larder · Kemble";
  }, []);
  if (!larder.data || !kitchen.data) return <Waiting error={larder.error ?? kitchen.error} />;
  const sought = wanted.trim().toLowerCase();
  const found = larder.data.filter((item) =>
    [item.name, item.group, ...item.aliases, ...item.allergens].some((words) => words.toLowerCase().includes(sought)),
  );
  const chosen = larder.data.find((item) => item.id === open);
  return (
    <Frame
      title={<h1 className="text-2xl sm:text-[28px]">Larder</h1>}
      aside={<Find value={wanted} onChange={setWanted} />}
    >
      <div className="mt-5 grid gap-x-12 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <section aria-label="Ingredients" className="order-2 lg:order-1">
          <p className="flex flex-wrap items-baseline justify-between gap-3 text-ink2">
            {found.length} of {larder.data.length} ingredients
            <button type="button" className="pick" onClick={() => setOpen("")}>
              One of your own
            </button>
          </p>
          <JustDropped kinds={["ingredient"]} />
          {GROUPS.filter(([group]) => found.some((item) => item.group === group)).map(([group, words]) => (
            <div key={group} className="mt-4">
              <h2 className="text-lg">{words}</h2>
              <ul>
                {found
                  .filter((item) => item.group === group)
                  .map((item) => (
                    <li key={item.id}>
                      <button
                        type="button"
                        aria-expanded={open === item.id}
                        className={`hairline grid w-full grid-cols-[minmax(0,1fr)_9rem_5rem] items-center gap-3 py-1 text-left hover:bg-sheet ${open === item.id ? "bg-sheet font-bold" : ""}`}
                        onClick={() => setOpen(item.id)}
                      >
                        <span>
                          {item.name}
                          {item.own && <span className="ml-2 text-sm font-normal text-green">yours</span>}
                        </span>
                        <CompositionBar item={item} />
                        <span className="text-right text-sm font-normal text-ink2">
                          {Object.values(item.density)[0]} g/ml
                        </span>
                      </button>
                    </li>
                  ))}
              </ul>
            </div>
          ))}
        </section>
        <section aria-label="One ingredient" className="order-1 lg:order-2">
          <div className="lg:sticky lg:top-4">
            {open === null ? (
              <p className="text-ink2">
                Press an ingredient to see what is in it and where the figures come from. Change any of them for this
                kitchen, or add one of your own.
              </p>
            ) : (
              <Editor
                key={open}
                start={chosen ? own(chosen) : blank}
                card={chosen}
                kitchen={kitchen.data.kitchen}
                onDone={setOpen}
              />
            )}
          </div>
        </section>
      </div>
    </Frame>
  );
}

function CompositionBar({
  item,
  wide = 144,
  tall = 20,
}: {
  item: Pick<IngredientCard, "per_100_g">;
  wide?: number;
  tall?: number;
}) {
  const shares = (["water", "starch", "sugar", "fat", "other"] as const).map((material) => ({
    material,
    grams: COMPONENTS.filter((name) => MATERIAL[name] === material).reduce(
      (sum, name) => sum + (item.per_100_g[name] ?? 0),
      0,
    ),
  }));
  let at = 0;
  const words = shares
    .filter((share) => share.grams >= 0.5)
    .map((share) => `${MATERIAL_WORDS[share.material]} ${share.grams.toFixed(0)}`)
    .join(", ");
  return (
    <svg viewBox={`0 0 ${wide} ${tall}`} className="block w-full" role="img" aria-label={`in 100 g: ${words}`}>
      {shares.map((share) => {
        const x = at;
        const w = (share.grams / 100) * wide;
        at += w;
        return (
          share.grams > 0.3 && (
            <rect
              key={share.material}
              x={x}
              y="0.5"
              width={w}
              height={tall - 1}
              fill={fill(share.material)}
              stroke="var(--color-ink)"
              strokeWidth="1"
            />
          )
        );
      })}
    </svg>
  );
}

interface EditorProps {
  start: Own;
  card?: IngredientCard;
  kitchen: KitchenSettings;
  onDone: (open: string | null) => void;
}

function Editor({ start, card, kitchen, onDone }: EditorProps) {
  const { save, pending, error } = useKitchenSave();
  const [item, setItem] = useState(start);
  const sum = COMPONENTS.reduce((total, name) => total + (item.per_100_g[name] ?? 0), 0);
  const changed = JSON.stringify(item) !== JSON.stringify(start);
  const mine = kitchen.ingredients.some((one) => one.id === item.id);
  const others = kitchen.ingredients.filter((one) => one.id !== item.id);
  const keep = () => {
    const id = item.id || ownId(item.name);
    save(kitchen, { ...kitchen, ingredients: [...others, { ...item, id }] }, () => onDone(id));
  };
  const [pack] = Object.entries(item.packs);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      {card ? (
        <h2 className="text-2xl">{item.name}</h2>
      ) : (
        <input
          aria-label="Name of the ingredient"
          className="write w-full font-title text-2xl"
          placeholder="its name"
          required
          maxLength={60}
          value={item.name}
          onChange={(event) => setItem({ ...item, name: event.target.value })}
        />
      )}
      {card && card.aliases.length > 0 && <p className="text-ink2">also: {card.aliases.join(", ")}</p>}
      {item.look_alike && <p className="text-look">{item.look_alike}</p>}
      {item.caution && <p className="font-bold text-look">{item.caution}</p>}
      <div className="mt-3">
        <CompositionBar item={item} wide={512} tall={36} />
      </div>
      <p className="mt-1 text-sm text-ink2">In 100 g. Figures: {card ? card.figures : "yours"}.</p>
      <div className="mt-1 grid grid-cols-2 gap-x-8">
        {COMPONENTS.map((name) => (
          <Row key={name} label={name}>
            <NumberField
              label={`${name} in 100 g`}
              hideLabel
              value={item.per_100_g[name] ?? 0}
              unit="g"
              decimals={1}
              within={limit(`Composition.${name}`)}
              width="3.4rem"
              onChange={(value) => setItem({ ...item, per_100_g: { ...item.per_100_g, [name]: value } })}
            />
          </Row>
        ))}
      </div>
      <p className={`mt-1 ${Math.abs(sum - 100) > 1 ? "font-bold text-bean" : "text-green"}`} role="status">
        Together {sum.toFixed(1)} g{Math.abs(sum - 100) > 1 ? ": it should be 100" : ""}
      </p>
      {!card && (
        <PickRow
          label="Stands with"
          value={item.group}
          options={GROUPS}
          onChange={(group) => setItem({ ...item, group })}
        />
      )}
      {Object.entries(item.density).map(([state, density]) => (
        <Row key={state} label={`Weight of a millilitre, ${state}`}>
          <NumberField
            label={`Weight of a millilitre, ${state}`}
            hideLabel
            value={density}
            unit="g"
            decimals={2}
            within={limit("Ingredient.density")}
            width="3.6rem"
            onChange={(value) => setItem({ ...item, density: { ...item.density, [state]: value } })}
          />
        </Row>
      ))}
      <Row label="Weight of one piece">
        <NumberField
          label="Weight of one piece"
          hideLabel
          value={item.g_per_piece ?? null}
          unit="g"
          within={limit("Ingredient.g_per_piece")}
          width="3.6rem"
          onClear={() => setItem({ ...item, g_per_piece: null })}
          onChange={(g_per_piece) => setItem({ ...item, g_per_piece })}
        />
      </Row>
      <Row label={`A ${pack?.[0] ?? "pack"} holds`}>
        <NumberField
          label="A pack holds"
          hideLabel
          value={pack?.[1] ?? null}
          unit="g"
          decimals={0}
          within={limit("Ingredient.packs")}
          width="4rem"
          onClear={() => setItem({ ...item, packs: {} })}
          onChange={(value) => setItem({ ...item, packs: { ...item.packs, [pack?.[0] ?? "pack"]: value } })}
        />
      </Row>
      <Row label="Contains">
        <input
          aria-label="Allergens, with commas"
          className="write w-52 text-right"
          placeholder="allergens, with commas"
          value={item.allergens.join(", ")}
          onChange={(event) =>
            setItem({ ...item, allergens: event.target.value.split(",").map((word) => word.trimStart()) })
          }
          onBlur={() => setItem({ ...item, allergens: item.allergens.map((word) => word.trim()).filter(Boolean) })}
        />
      </Row>
      <Row label="Spoils out of the cold">
        <input
          aria-label="Spoils out of the cold"
          type="checkbox"
          className="size-5 accent-bean"
          checked={item.perishable}
          onChange={(event) => setItem({ ...item, perishable: event.target.checked })}
        />
      </Row>
      <Sorry error={error} />
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="submit" className="pick" data-on="true" disabled={!changed || pending}>
          {card ? "Keep for this kitchen" : "Put it on the shelf"}
        </button>
        {mine && (
          <button
            type="button"
            className="pick"
            onClick={() => save(kitchen, { ...kitchen, ingredients: others }, () => onDone(null))}
          >
            {item.id.startsWith("own-") ? "Take it away" : "Back to the usual figures"}
          </button>
        )}
      </div>
    </form>
  );
}

/** A new id that no other can have, readable in a sheet. */
const ownId = (name: string) =>
  `own-${
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 50) || "ingredient"
  }`;
