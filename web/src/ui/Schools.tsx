/** A choice on which cooks differ: each side, and what the one taken buys. */

import { ToggleGroup } from "radix-ui";
import type { WayCard } from "../api/client";

interface Props {
  way: WayCard;
  station: string;
  schools: Record<string, string>;
  onChoose: (choice: string, school: string) => void;
}

export function Schools({ way, station, schools, onChoose }: Props) {
  return way.choices
    .filter((choice) => choice.station === station)
    .map((choice) => {
      const taken = schools[choice.id] ?? choice.default;
      return (
        <div key={choice.id} className="mt-3">
          <p id={`choice-${choice.id}`} className="text-ink2">
            {choice.title}
          </p>
          <ToggleGroup.Root
            type="single"
            value={taken}
            onValueChange={(school) => school && onChoose(choice.id, school)}
            aria-labelledby={`choice-${choice.id}`}
            className="mt-1 flex flex-wrap gap-2"
          >
            {choice.schools.map((school) => (
              <ToggleGroup.Item key={school.id} value={school.id} className="pick">
                {school.label}
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
          <p className="mt-1 text-sm text-ink2">{choice.schools.find((school) => school.id === taken)?.buys}.</p>
        </div>
      );
    });
}
