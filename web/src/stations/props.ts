/** What a station is given: the sheet as it is being edited, its way, and the kitchen that it is worked in. */

import type { KitchenSettings, WayCard } from "../api/client";
import type { Editing } from "../sheet/useSheet";

export interface StationProps {
  editing: Editing;
  way: WayCard;
  kitchen: KitchenSettings;
}
