/** Generated from the core by `make api`: limits, usual values, units, groups and fact keys. Not to be edited. */

import { t } from "@lingui/core/macro";

export const LIMITS = {
  "Ingredient.density": {
    "min": 0.02,
    "max": 2.5
  },
  "Ingredient.packs": {
    "above": 0,
    "max": 50000.0
  },
  "AddedIngredient.grams": {
    "above": 0,
    "max": 10000
  },
  "Adjustment.hydration_pct": {
    "above": 0,
    "max": 400
  },
  "Adjustment.sugar_pct": {
    "min": 0,
    "max": 300
  },
  "Adjustment.fat_pct": {
    "min": 0,
    "max": 200
  },
  "Adjustment.share_pct": {
    "above": 0,
    "below": 95
  },
  "Adjustment.grams": {
    "above": 0,
    "max": 50000.0
  },
  "Adjustment.amount": {
    "above": 0,
    "max": 50000.0
  },
  "Adjustment.mm": {
    "above": 0,
    "max": 200
  },
  "Adjustment.count": {
    "min": 1,
    "max": 500
  },
  "Adjustment.piece_g": {
    "above": 0,
    "max": 500
  },
  "Adjustment.filling_g": {
    "above": 0,
    "max": 300
  },
  "Adjustment.people": {
    "min": 1,
    "max": 500
  },
  "Adjustment.each": {
    "above": 0,
    "max": 50
  },
  "Adjustment.factor": {
    "above": 0,
    "max": 1000
  },
  "Adjustment.part": {
    "min": 0,
    "max": 11
  },
  "Adjustment.line": {
    "min": 0,
    "max": 39
  },
  "Amount.value": {
    "above": 0,
    "max": 50000.0
  },
  "Bag.length_mm": {
    "min": 80,
    "max": 600,
    "usual": 260.0
  },
  "Bag.width_mm": {
    "min": 80,
    "max": 600,
    "usual": 200.0
  },
  "BatchOutcome.pieces": {
    "min": 0,
    "max": 1000
  },
  "BatchOutcome.grams": {
    "above": 0,
    "max": 50000
  },
  "BenchSetup.total_g": {
    "above": 0,
    "max": 50000
  },
  "BenchSetup.pieces": {
    "min": 1,
    "max": 500
  },
  "BenchSetup.tolerance_pct": {
    "min": 0.5,
    "max": 50,
    "usual": 5.0
  },
  "BlindTastingDesign.tasters": {
    "min": 2,
    "max": 60,
    "usual": 6
  },
  "BlindTastingDesign.seed": {
    "min": 0,
    "max": 2147483648,
    "usual": 1
  },
  "Burner.low_w": {
    "min": 50.0,
    "max": 6000.0,
    "usual": 380.0
  },
  "Burner.medium_w": {
    "min": 50.0,
    "max": 6000.0,
    "usual": 620.0
  },
  "Burner.high_w": {
    "min": 50.0,
    "max": 6000.0,
    "usual": 1500.0
  },
  "Burner.medium_low_w": {
    "min": 50.0,
    "max": 6000.0
  },
  "Burner.medium_high_w": {
    "min": 50.0,
    "max": 6000.0
  },
  "CoreProbed.celsius": {
    "min": -60,
    "max": 400
  },
  "Cut.pieces": {
    "min": 1,
    "max": 400,
    "usual": 24
  },
  "Cut.side_mm": {
    "min": 5,
    "max": 600
  },
  "Cut.long_mm": {
    "min": 5,
    "max": 600
  },
  "Cut.piece_g": {
    "above": 0,
    "max": 2000
  },
  "Cut.small": {
    "min": 0,
    "max": 400,
    "usual": 0
  },
  "Grain.rinses": {
    "min": 0,
    "max": 12,
    "usual": 3
  },
  "Grain.soak_min": {
    "min": 0,
    "max": 2880,
    "usual": 480.0
  },
  "Grain.soak_c": {
    "min": 1,
    "max": 55,
    "usual": 18.0
  },
  "Grain.drain_min": {
    "min": 0,
    "max": 240,
    "usual": 30.0
  },
  "Heat.oven_c": {
    "min": 120,
    "max": 260,
    "usual": 175.0
  },
  "Heat.griddle_c": {
    "min": 120,
    "max": 260
  },
  "HeatStage.oven_c": {
    "min": 120,
    "max": 260
  },
  "HeatStage.minutes": {
    "min": 0.5,
    "max": 720
  },
  "HeatStage.top_up_ml": {
    "min": 0,
    "max": 5000,
    "usual": 0.0
  },
  "Ingredient.g_per_piece": {
    "above": 0,
    "max": 5000
  },
  "IngredientCard.g_per_piece": {
    "above": 0,
    "max": 5000
  },
  "IngredientComposition.water": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.starch": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.sugar": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.fat": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.protein": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.fibre": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.salt": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "IngredientComposition.other": {
    "min": 0,
    "max": 100,
    "usual": 0.0
  },
  "KettleTest.water_ml": {
    "min": 200,
    "max": 5000
  },
  "KettleTest.start_c": {
    "min": 1,
    "max": 60
  },
  "KettleTest.seconds": {
    "min": 30,
    "max": 3600
  },
  "Kitchen.altitude_m": {
    "min": -400,
    "max": 5500,
    "usual": 0.0
  },
  "Kitchen.room_c": {
    "min": 5,
    "max": 45,
    "usual": 21.0
  },
  "Kitchen.fridge_c": {
    "min": 0,
    "max": 10,
    "usual": 5.0
  },
  "Kitchen.freezer_c": {
    "min": -35,
    "max": -5,
    "usual": -18.0
  },
  "Kitchen.cooks": {
    "min": 1,
    "max": 12,
    "usual": 1
  },
  "Kitchen.burners": {
    "min": 1,
    "max": 12,
    "usual": 4
  },
  "Kitchen.ovens": {
    "min": 0,
    "max": 4,
    "usual": 1
  },
  "Kitchen.toasters": {
    "min": 0,
    "max": 4,
    "usual": 0
  },
  "Kitchen.machines": {
    "min": 0,
    "max": 4,
    "usual": 1
  },
  "Kitchen.cold_shelves": {
    "min": 1,
    "max": 20,
    "usual": 3
  },
  "Kitchen.microwave_w": {
    "min": 200,
    "max": 2000,
    "usual": 800.0
  },
  "Kitchen.cooker_w": {
    "min": 100,
    "max": 2000,
    "usual": 450.0
  },
  "Kitchen.oven_shelves": {
    "min": 1,
    "max": 6,
    "usual": 2
  },
  "Kitchen.own_cup_ml": {
    "min": 30,
    "max": 1000
  },
  "Kitchen.own_spoon_ml": {
    "min": 1,
    "max": 60
  },
  "Kitchen.time_factor": {
    "min": 0.5,
    "max": 2.0,
    "usual": 1.0
  },
  "LarderStock.grams": {
    "min": 0,
    "max": 100000,
    "usual": 0.0
  },
  "LarderStock.pack_g": {
    "above": 0,
    "max": 50000
  },
  "LarderStock.price": {
    "min": 0,
    "max": 10000
  },
  "LearnedCorrelation.r": {
    "min": -1,
    "max": 1
  },
  "LearnedValue.batches": {
    "min": 0,
    "max": 1000000
  },
  "Line.soak_min": {
    "min": 0,
    "max": 2880
  },
  "LoadScale.grams": {
    "above": 0,
    "max": 20000
  },
  "LogFilter.sheet": {
    "min": 1,
    "max": 9007199254740991
  },
  "MadeFor.share": {
    "above": 0,
    "below": 1
  },
  "MarkContent.grams": {
    "above": 0,
    "max": 50000
  },
  "MethodStage.minutes": {
    "above": 0,
    "max": 6000.0
  },
  "MethodStage.power_pct": {
    "min": 5,
    "max": 100
  },
  "MoreTins.count": {
    "min": 1,
    "max": 12,
    "usual": 1
  },
  "NewBench.sheet": {
    "min": 1,
    "max": 9007199254740991
  },
  "NewEvent.grams": {
    "above": 0,
    "max": 50000
  },
  "NewEvent.celsius": {
    "min": -60,
    "max": 400
  },
  "NewEvent.times": {
    "min": 1,
    "max": 1000
  },
  "NewEvent.clock_error_s": {
    "min": -40000000.0,
    "max": 40000000.0
  },
  "NewRun.sheet": {
    "min": 1,
    "max": 9007199254740991
  },
  "NewRun.occasion": {
    "min": 1,
    "max": 9007199254740991
  },
  "NewRun.dish": {
    "min": 0,
    "below": 60
  },
  "NewTasting.liking": {
    "min": 1,
    "max": 9
  },
  "OccasionDish.sheet": {
    "min": 1,
    "max": 9007199254740991
  },
  "OccasionDish.serving": {
    "min": 0,
    "max": 7,
    "usual": 0
  },
  "OccasionDish.each": {
    "above": 0,
    "max": 50
  },
  "OccasionDish.days_before": {
    "min": 0,
    "max": 6,
    "usual": 0
  },
  "OccasionDish.factor": {
    "min": 0.05,
    "max": 20,
    "usual": 1.0
  },
  "OutcomeCorrection.pieces": {
    "min": 0,
    "max": 1000
  },
  "OutcomeCorrection.grams": {
    "above": 0,
    "max": 50000
  },
  "OvenTest.water_ml": {
    "min": 100,
    "max": 5000
  },
  "OvenTest.across_mm": {
    "min": 80,
    "max": 400
  },
  "OvenTest.start_c": {
    "min": 1,
    "max": 40
  },
  "OvenTest.end_c": {
    "min": 20,
    "max": 95
  },
  "OvenTest.oven_c": {
    "min": 100,
    "max": 280
  },
  "OvenTest.minutes": {
    "min": 3,
    "max": 60
  },
  "OwnDay.begin_days": {
    "min": 0,
    "max": 60,
    "usual": 0
  },
  "OwnEstimate.value": {
    "min": -100,
    "max": 10000
  },
  "OwnEstimate.low": {
    "min": -100,
    "max": 10000
  },
  "OwnEstimate.high": {
    "min": -100,
    "max": 10000
  },
  "OwnStep.minutes": {
    "above": 0,
    "max": 6000.0
  },
  "PageQuery.page": {
    "min": 1,
    "max": 1000000,
    "usual": 1
  },
  "PageQuery.size": {
    "min": 1,
    "max": 50,
    "usual": 20
  },
  "Pan.empty_g": {
    "above": 0,
    "max": 10000
  },
  "Pan.across_mm": {
    "min": 60,
    "max": 600,
    "usual": 200.0
  },
  "Part.each_g": {
    "above": 0,
    "max": 500
  },
  "Part.each_mm": {
    "min": 2,
    "max": 100
  },
  "PartialAmount.share": {
    "above": 0,
    "max": 1
  },
  "Pieces.count": {
    "min": 1,
    "max": 500
  },
  "Pieces.dough_g": {
    "above": 0,
    "max": 500
  },
  "Pieces.filling_g": {
    "above": 0,
    "max": 300
  },
  "Pieces.piece_g": {
    "above": 0,
    "max": 800
  },
  "Pieces.skin_pct": {
    "min": 1,
    "max": 99
  },
  "Pieces.skin_mm": {
    "min": 0.2,
    "max": 60
  },
  "Pieces.diameter_mm": {
    "min": 5,
    "max": 150
  },
  "Pieces.bare_pct": {
    "min": 0,
    "max": 60
  },
  "Pieces.trim_pct": {
    "min": 0,
    "max": 50
  },
  "PiecesCounted.times": {
    "min": 1,
    "max": 1000
  },
  "Pinned.dish": {
    "min": 0,
    "below": 60
  },
  "Pot.diameter_mm": {
    "min": 120,
    "max": 600,
    "usual": 240.0
  },
  "Pot.water_ml": {
    "min": 500,
    "max": 20000,
    "usual": 3000.0
  },
  "RolledDough.cutter_mm": {
    "min": 10,
    "max": 300
  },
  "RolledDough.gap_mm": {
    "min": 0,
    "max": 30,
    "usual": 2.0
  },
  "RolledDough.again": {
    "min": 0,
    "max": 5,
    "usual": 1
  },
  "RolledDough.board_length_mm": {
    "min": 100,
    "max": 1500,
    "usual": 450.0
  },
  "RolledDough.board_width_mm": {
    "min": 100,
    "max": 1500,
    "usual": 300.0
  },
  "RolledDough.length_mm": {
    "min": 50,
    "max": 1500
  },
  "RolledDough.width_mm": {
    "min": 50,
    "max": 1500
  },
  "SaveKitchen.revision": {
    "min": 1,
    "max": 9007199254740991
  },
  "SaveOccasion.revision": {
    "min": 1,
    "max": 9007199254740991
  },
  "SaveSheet.revision": {
    "min": 1,
    "max": 9007199254740991
  },
  "Scoop.ml": {
    "above": 0,
    "max": 500
  },
  "Serving.people": {
    "min": 1,
    "max": 500
  },
  "SharePart.with_sheet": {
    "min": 1,
    "max": 9007199254740991
  },
  "SheetAsMade.run": {
    "min": 1,
    "max": 9007199254740991
  },
  "SimulatedCookTraits.late": {
    "min": 0,
    "max": 2,
    "usual": 0
  },
  "SimulatedCookTraits.heavy": {
    "min": 0,
    "max": 2,
    "usual": 0
  },
  "SimulatedCookTraits.forgetful": {
    "min": 0,
    "max": 2,
    "usual": 0
  },
  "SimulatedCookTraits.seed": {
    "min": 0,
    "max": 2147483648,
    "usual": 1
  },
  "Split.share": {
    "above": 0,
    "max": 1
  },
  "StartTemperatures.batter_c": {
    "min": 1,
    "max": 90
  },
  "StartTemperatures.dough_c": {
    "min": 1,
    "max": 95,
    "usual": 26.0
  },
  "StartTemperatures.scald_pct": {
    "min": 0,
    "max": 100
  },
  "SteamTest.steam_c": {
    "min": 70,
    "max": 101
  },
  "Steamer.diameter_mm": {
    "min": 120,
    "max": 600,
    "usual": 260.0
  },
  "Steamer.rack_mm": {
    "min": 15,
    "max": 200,
    "usual": 38.0
  },
  "Steamer.gap_mm": {
    "min": 0,
    "max": 50,
    "usual": 10.0
  },
  "Steamer.low_mm": {
    "min": 3,
    "max": 60,
    "usual": 12.0
  },
  "Steamer.tiers": {
    "min": 1,
    "max": 5,
    "usual": 2
  },
  "Steamer.watts": {
    "min": 100,
    "max": 3000
  },
  "StepChange.minutes": {
    "above": 0,
    "max": 6000.0
  },
  "StepChange.ours_min": {
    "above": 0,
    "max": 6000.0
  },
  "StepWeighed.grams": {
    "above": 0,
    "max": 50000
  },
  "StickProbe.run": {
    "min": 1,
    "max": 9007199254740991
  },
  "StockLeft.pieces": {
    "min": 0,
    "max": 1000
  },
  "StoredPieces.pieces": {
    "min": 1,
    "max": 1000
  },
  "Take.share": {
    "above": 0,
    "max": 1
  },
  "TasterAnswer.taster": {
    "min": 1,
    "max": 60
  },
  "Tin.diameter_mm": {
    "min": 40,
    "max": 500,
    "usual": 150.0
  },
  "Tin.length_mm": {
    "min": 40,
    "max": 600,
    "usual": 200.0
  },
  "Tin.width_mm": {
    "min": 40,
    "max": 600,
    "usual": 200.0
  },
  "Tin.height_mm": {
    "min": 10,
    "max": 200,
    "usual": 60.0
  },
  "Vessel.count": {
    "min": 1,
    "max": 12,
    "usual": 1
  },
  "WantedSheet.sheet": {
    "min": 1,
    "max": 9007199254740991
  },
  "WantedSheet.times": {
    "min": 1,
    "max": 20,
    "usual": 1
  },
  "WeighedMeasure.grams": {
    "above": 0,
    "max": 2000
  },
  "Wrap.leaf_length_mm": {
    "min": 60,
    "max": 1200
  },
  "Wrap.leaf_width_mm": {
    "min": 20,
    "max": 500
  },
  "Wrap.leaves": {
    "min": 1,
    "max": 4
  },
  "Wrap.thick_mm": {
    "min": 6,
    "max": 60
  }
} as const;

export const UNITS = {
  "g": {
    "listed": "g",
    "kind": "mass"
  },
  "kg": {
    "listed": "kg",
    "kind": "mass"
  },
  "oz": {
    "listed": "oz",
    "kind": "mass"
  },
  "lb": {
    "listed": "lb",
    "kind": "mass"
  },
  "ml": {
    "listed": "ml",
    "kind": "volume"
  },
  "l": {
    "listed": "l",
    "kind": "volume"
  },
  "cup_us": {
    "listed": "cup 237, US",
    "kind": "volume"
  },
  "cup_metric": {
    "listed": "cup 250, metric",
    "kind": "volume"
  },
  "cup_rice_cooker": {
    "listed": "cup 180, rice cooker",
    "kind": "volume"
  },
  "tbsp_us": {
    "listed": "tbsp 14.8, US",
    "kind": "volume"
  },
  "tbsp_metric": {
    "listed": "tbsp 15",
    "kind": "volume"
  },
  "tbsp_20": {
    "listed": "tbsp 20",
    "kind": "volume"
  },
  "tsp_us": {
    "listed": "tsp 4.9, US",
    "kind": "volume"
  },
  "tsp_metric": {
    "listed": "tsp 5",
    "kind": "volume"
  },
  "quart_us": {
    "listed": "quart 946, US",
    "kind": "volume"
  },
  "gallon_us": {
    "listed": "gallon 3.8 l, US",
    "kind": "volume"
  },
  "drop": {
    "listed": "drop",
    "kind": "volume"
  },
  "cup_own": {
    "listed": "our cup",
    "kind": "own"
  },
  "spoon_own": {
    "listed": "our spoon",
    "kind": "own"
  },
  "pinch": {
    "listed": "pinch",
    "kind": "mass"
  },
  "piece": {
    "listed": "piece",
    "kind": "count"
  },
  "pack": {
    "listed": "pack",
    "kind": "pack"
  }
} as const;

export const LOCALES = [
  "en-GB",
  "en-US",
  "en-CA",
  "en-IN",
  "en-AU",
  "en-IE",
  "en-DE"
] as const;

export const FOLD = {
  "idle": [
    "counted",
    "handed",
    "noted",
    "fault"
  ],
  "whole_run": [
    "amended",
    "added",
    "noted",
    "fault",
    "undone",
    "redone",
    "replanned",
    "finished"
  ],
  "undone_unnamed": [
    "started",
    "done",
    "not_yet",
    "probed"
  ],
  "not_yet_min": 5.0,
  "soon_min": 2.0
} as const;

export const SHEET_VERSION = 3 as const;

export const MOST_OF_A_ROLE = 9 as const;

export const GROUPS = [
  ["flour", t`flour`],
  ["grain", t`whole grain`],
  ["legume", t`dry beans`],
  ["liquid", t`liquids`],
  ["sugar", t`sugars, honeys, syrups`],
  ["fat", t`fats and oils`],
  ["egg", t`eggs`],
  ["nut", t`nuts and seeds`],
  ["fruit", t`fruit`],
  ["paste", t`pastes and purées`],
  ["flavour", t`flavours`],
  ["herb", t`green herbs`],
  ["savoury", t`savoury`],
  ["salt", t`salt`],
  ["dust", t`starches and dusts`],
  ["leaf", t`leaves, paper, string`],
] as const;

export const DIETS = [
  ["vegan", t`nothing from animals`],
  ["no-egg", t`no egg`],
  ["no-dairy", t`no dairy`],
  ["no-nuts", t`no nuts`],
  ["no-alcohol", t`no alcohol`],
  ["no-refined-sugar", t`no refined sugar`],
] as const;

export type FactKey =
  | "mix.base_g"
  | "mix.hydration_pct"
  | "mix.sugar_pct"
  | "mix.fat_pct"
  | "mix.salt_pct"
  | "mix.batch_g"
  | "mix.water_g"
  | "mix.cooked_g"
  | "mix.scale_g"
  | "mix.volume_ml"
  | "mix.density_g_per_ml"
  | "mix.sugar_in_water_pct"
  | "mix.gel_temperature_c"
  | "mix.softness"
  | "mix.tenderness"
  | "mix.egg_pct"
  | "mix.legume_pct"
  | "mix.filling_pct"
  | "mix.filling_share_pct"
  | "grain.dry_g"
  | "grain.soak_min"
  | "grain.drain_min"
  | "grain.soak_end_pct"
  | "grain.uptake_pct"
  | "grain.uptake_g"
  | "grain.bean_soak_min"
  | "grain.bean_uptake_g"
  | "grain.cling_g"
  | "grain.soaked_g"
  | "grain.total_water_g"
  | "grain.cook_water_g"
  | "grain.pot_water_g"
  | "grain.left_water_g"
  | "grain.cooked_g"
  | "grain.cook_min"
  | "shape.pieces"
  | "shape.piece_g"
  | "shape.base_g"
  | "shape.filling_g"
  | "shape.paste_g"
  | "shape.paste_mm"
  | "shape.heart_g"
  | "shape.heart_mm"
  | "shape.filling_on_base_pct"
  | "shape.diameter_mm"
  | "shape.core_mm"
  | "shape.skin_mm"
  | "shape.skin_pct"
  | "shape.scoop"
  | "shape.scoop_g"
  | "shape.cutter_mm"
  | "shape.sheet_thick_mm"
  | "shape.sheet_cm2"
  | "shape.cut_first"
  | "shape.cut_of_sheet"
  | "shape.trimmings_g"
  | "shape.least_skin_mm"
  | "shape.disc_mm"
  | "shape.rope_mm"
  | "shape.rope_cut_mm"
  | "shape.base_enough_for"
  | "shape.filling_enough_for"
  | "shape.short_of"
  | "shape.left_over_g"
  | "shape.thick_mm"
  | "shape.side_mm"
  | "mix.scald_g"
  | "mix.scald_cool_g"
  | "mix.scald_c"
  | "mix.scald_cooked_pct"
  | "mix.scald_takes_g"
  | "shape.pinch_g"
  | "shape.trim_g"
  | "shape.hand_water_ml"
  | "shape.hand_salt_g"
  | "cut.met"
  | "shape.packet_ml"
  | "shape.leaf_holds_g"
  | "shape.leaf_rice_g"
  | "shape.leaf_filling_g"
  | "shape.edge_mm"
  | "shape.string_mm"
  | "shape.string_m"
  | "shape.strip_mm"
  | "shape.strip_wide_mm"
  | "shape.floor_mm"
  | "shape.lining_leaves"
  | "shape.rolled_mm"
  | "shape.rolled_cut_g"
  | "shape.wrappers"
  | "shape.foil_mm"
  | "shape.foil_across_mm"
  | "shape.tins"
  | "shape.depth_mm"
  | "shape.headroom_mm"
  | "heat.boil_c"
  | "heat.depth_mm"
  | "heat.first_check_min"
  | "heat.set_min"
  | "heat.steam_c"
  | "heat.done_min"
  | "heat.latest_min"
  | "heat.float_min"
  | "heat.core_hot_min"
  | "heat.heart_done_c"
  | "heat.deeper_min"
  | "heat.colder_min"
  | "heat.cover_min"
  | "heat.tin_min"
  | "heat.fuller_min"
  | "heat.lid_min"
  | "heat.door_min"
  | "heat.unsoaked_min"
  | "heat.top_sets_min"
  | "heat.top_looks"
  | "heat.gained_g"
  | "heat.glaze_at_min"
  | "heat.bare_min"
  | "heat.pound_min"
  | "heat.pound_hot_min"
  | "heat.power_w"
  | "heat.lost_g"
  | "heat.double_min"
  | "heat.level_min"
  | "heat.needs_min"
  | "heat.thicker_min"
  | "heat.cooler_min"
  | "heat.skin_min"
  | "heat.browns_min"
  | "heat.dried_min"
  | "heat.dried_pct"
  | "heat.to_boil_min"
  | "heat.caramel_min"
  | "heat.melt_min"
  | "heat.syrup_cools_min"
  | "heat.thicken_min"
  | "heat.water_ml"
  | "heat.water_loss_g_per_min"
  | "heat.top_up_at_min"
  | "heat.top_up_ml"
  | "heat.loads"
  | "heat.all_loads_min"
  | "heat.waits_c"
  | "heat.load_pieces"
  | "heat.pot_dip_c"
  | "finish.side_min"
  | "finish.each_min"
  | "finish.frozen_min"
  | "finish.loads"
  | "finish.all_min"
  | "rest.batter_min"
  | "rest.rigid_min"
  | "rest.firm_h"
  | "rest.handle_from_min"
  | "rest.handle_until_min"
  | "rest.shaping_min"
  | "rest.chill_min"
  | "rest.cut_after_min"
  | "rest.cut_counter_min"
  | "rest.cut_fridge_min"
  | "rest.cut_at_c"
  | "rest.freeze_filling_min"
  | "rest.soften_min"
  | "rest.take_out"
  | "cut.rows"
  | "cut.columns"
  | "cut.pieces"
  | "cut.piece_g"
  | "cut.piece_mm"
  | "cut.corners"
  | "cut.edges"
  | "cut.offcut_pct"
  | "work.held_min"
  | "work.minded_min"
  | "whole.g"
  | "whole.piece_g"
  | "whole.water_pct"
  | "whole.sugar_pct"
  | "whole.fat_pct"
  | "whole.sweetness_pct"
  | "keep.room_h"
  | "keep.eaten_h"
  | "keep.cold_h"
  | "keep.frozen_days"
  | "keep.hard_after_h"
  | "keep.hard_cold_h"
  | "keep.eat_within_h"
  | "keep.limited_by"
  | "keep.restore"
  | `part.${string}.${"also_g" | "away_g" | "boil_off_g_per_min" | "boil_off_min" | "boils_min" | "caramel_min" | "coats_min" | "dry_ratio" | "enough_for" | "have_g" | "kept_g" | "loss_g" | "made_g" | "oil_g" | "piece_g" | "raw_g" | "scale_g" | "short_g" | "soft_min" | "solids_pct" | "stiff_min" | "sugar_pct" | "taken_g"}`;
