/** An ingredient of the cook's own, or the cook's own figures for one of the larder. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { type ReactNode, useState } from "react";
import type { IngredientCard, KitchenSettings } from "../api/client";
import { GROUPS } from "../api/generated";
import { limit } from "../api/limits";
import { useKitchenSave } from "../sheet/useKitchenSave";
import { ErrorNotice } from "../ui/ErrorNotice";
import { NumberField } from "../ui/NumberField";
import { PickRow, Row, TickRow } from "../ui/Row";
import { fixed } from "../words/numbers";
import { said } from "../words/said";
import { COMPONENTS, CompositionBar } from "./CompositionBar";

export type Own = KitchenSettings["ingredients"][number];

export const own = ({ own: _own, figures: _figures, ...item }: IngredientCard): Own => ({ ...item, source: "cook" });

interface EditorProps {
  start: Own;
  card?: IngredientCard;
  kitchen: KitchenSettings;
  onDone: (open: string | null) => void;
  /** What stands between the drawing and the figures. */
  children?: ReactNode;
}

export function Editor({ start, card, kitchen, onDone, children }: EditorProps) {
  const { save, pending, error } = useKitchenSave();
  const [item, setItem] = useState(start);
  const sum = COMPONENTS.reduce((total, name) => total + (item.per_100_g[name] ?? 0), 0);
  const changed = JSON.stringify(item) !== JSON.stringify(start);
  const mine = kitchen.ingredients.some((ingredient) => ingredient.id === item.id);
  const others = kitchen.ingredients.filter((ingredient) => ingredient.id !== item.id);
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
          aria-label={t`Name of the ingredient`}
          className="write w-full font-title text-2xl"
          placeholder={t`its name`}
          required
          maxLength={60}
          value={item.name}
          onChange={(event) => setItem({ ...item, name: event.target.value })}
        />
      )}
      {card && card.aliases.length > 0 && (
        <p className="text-ink2">
          <Trans>also: {card.aliases.join(", ")}</Trans>
        </p>
      )}
      {item.look_alike && <p className="text-look">{item.look_alike}</p>}
      {item.caution && <p className="font-bold text-look">{item.caution}</p>}
      <div className="mt-3">
        <CompositionBar item={item} wide={512} tall={36} />
      </div>
      <p className="mt-1 text-sm text-ink2">
        <Trans>In 100 g. Figures: {card ? card.figures : t`yours`}.</Trans>
      </p>
      {children}
      <div className="mt-4 grid grid-cols-2 gap-x-8">
        {COMPONENTS.map((name) => (
          <Row key={name} label={said(name)}>
            <NumberField
              label={t`${said(name)} in 100 g`}
              hideLabel
              value={item.per_100_g[name] ?? 0}
              unit="g"
              decimals={1}
              within={limit(`IngredientComposition.${name}`)}
              width="3.4rem"
              onChange={(value) => setItem({ ...item, per_100_g: { ...item.per_100_g, [name]: value } })}
            />
          </Row>
        ))}
      </div>
      <p className={`mt-1 ${Math.abs(sum - 100) > 1 ? "font-bold text-bean" : "text-green"}`} role="status">
        <Trans>
          Together {fixed(sum, 1)} g{Math.abs(sum - 100) > 1 ? t`: it should be 100` : ""}
        </Trans>
      </p>
      {!card && (
        <PickRow
          label={t`Stands with`}
          value={item.group}
          options={GROUPS}
          onChange={(group) => setItem({ ...item, group })}
        />
      )}
      {Object.entries(item.density).map(([state, density]) => (
        <Row key={state} label={t`Weight of a millilitre, ${said(state)}`}>
          <NumberField
            label={t`Weight of a millilitre, ${said(state)}`}
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
      <Row label={t`Weight of one piece`}>
        <NumberField
          label={t`Weight of one piece`}
          hideLabel
          value={item.g_per_piece ?? null}
          unit="g"
          within={limit("Ingredient.g_per_piece")}
          width="3.6rem"
          onClear={() => setItem({ ...item, g_per_piece: null })}
          onChange={(g_per_piece) => setItem({ ...item, g_per_piece })}
        />
      </Row>
      <Row label={t`A ${pack?.[0] ?? t`pack`} holds`}>
        <NumberField
          label={t`A pack holds`}
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
      <Row label={t`Contains`}>
        <input
          aria-label={t`Allergens, with commas`}
          className="write w-52 text-right"
          placeholder={t`allergens, with commas`}
          value={item.allergens.join(", ")}
          onChange={(event) =>
            setItem({ ...item, allergens: event.target.value.split(",").map((word) => word.trimStart()) })
          }
          onBlur={() => setItem({ ...item, allergens: item.allergens.map((word) => word.trim()).filter(Boolean) })}
        />
      </Row>
      <TickRow
        label={t`Spoils out of the cold`}
        on={item.perishable}
        onChange={(perishable) => setItem({ ...item, perishable })}
      />
      {TAGS_SAID.map(([tag, label]) => (
        <TickRow
          key={tag}
          label={label}
          on={item.tags.includes(tag)}
          onChange={(on) =>
            setItem({ ...item, tags: on ? [...item.tags, tag] : item.tags.filter((eachTag) => eachTag !== tag) })
          }
        />
      ))}
      <ErrorNotice error={error} />
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="submit" className="pick" data-on="true" disabled={!changed || pending}>
          {card ? t`Keep for this kitchen` : t`Put it on the shelf`}
        </button>
        {mine && (
          <button
            type="button"
            className="pick"
            onClick={() => save(kitchen, { ...kitchen, ingredients: others }, () => onDone(null))}
          >
            {item.id.startsWith("own-") ? t`Take it away` : t`Back to the usual figures`}
          </button>
        )}
      </div>
    </form>
  );
}

/** What an ingredient is, where a caution hangs on it. */
const TAGS_SAID: [Own["tags"][number], string][] = [
  ["honey", t`Holds honey`],
  ["alcohol", t`Holds alcohol`],
];

/** A new id that no other can have, readable in a sheet. */
export const ownId = (name: string) =>
  `own-${
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 50) || "ingredient"
  }`;
