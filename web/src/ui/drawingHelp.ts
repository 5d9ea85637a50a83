/** How each page's drawing is read, in a cook's words: what "?" opens there, over the keys (keys.ts). */

import { t } from "@lingui/core/macro";

export interface Reading {
  head: string;
  says: readonly string[];
}

const PAGES: readonly (readonly [RegExp, Reading])[] = [
  [
    /^\/sheets\/\d+\/mix/,
    {
      head: t`The map`,
      says: [
        t`Across it is how much water there is to the flour or grain, counting the water in everything; up it is how much sugar.`,
        t`Inside the dashed line this way works. The bean is this sheet: drag it, and the amounts follow.`,
        t`Dots are batches from your log: a full round was just right, a point up too firm, a point down too soft.`,
        t`The bar under it is the bowl: water, sugar, starch, fat and the rest, as wide as they weigh.`,
      ],
    },
  ],
  [
    /^\/sheets\/\d+\/shape/,
    {
      head: t`The piece, or the tin`,
      says: [
        t`Cut through the middle and true to scale. Lines with arrows carry the measures.`,
        t`Drag an edge: the outside for its size, the inside for the skin. In a tin, drag the top of the batter.`,
        t`The bars say which runs out first, and what is left of the other.`,
      ],
    },
  ],
  [
    /^\/sheets\/\d+\/heat/,
    {
      head: t`The curve`,
      says: [
        t`Up is how hot it is, across are minutes. The thick line is the heart, the dotted one the outside.`,
        t`The green band is the window: look first at its left edge, it is likely done at the thick line, take it off by the right one.`,
        t`The dashed red line is where the starch gels. The small rhombus is where it has set through.`,
        t`Under it the water in the steamer falls over the same minutes. Slide the knob to see any minute.`,
      ],
    },
  ],
  [
    /^\/sheets\/\d+\/cut/,
    {
      head: t`Cooling and the knife`,
      says: [
        t`The curve falls to where it cuts clean; the band is when it can be handled.`,
        t`The tray is seen from above. Figures at its edges are where the knife goes, from the edge. Tinted pieces lie at the wall or in a corner.`,
      ],
    },
  ],
  [
    /^\/sheets\/\d+\/method/,
    {
      head: t`The method`,
      says: [
        t`Each band is a vessel, as wide as what it holds is heavy. What goes in comes from the left; what is emptied runs into the next.`,
        t`Press a step to time it, word it or leave it out. Drag it by its dots to do it sooner or later.`,
        t`Red minutes are yours; Kemble’s stand beside them.`,
      ],
    },
  ],
  [
    /^\/(sheets\/\d+\/plan|occasions\/\d+)/,
    {
      head: t`The day`,
      says: [
        t`Each lane is a pair of hands, a burner, the oven, the cold. Time goes to the right, up to the table.`,
        t`A solid block takes the hands. An open one wants a look every few minutes. A thin rail goes by itself.`,
        t`Shaded are the quiet hours. Drag a block to pin it; drag the table to eat at another time.`,
      ],
    },
  ],
  [
    /^\/make\/\d+$/,
    {
      head: t`The clock`,
      says: [
        t`The arc is the time that has gone. Round the rim the pale band is when to look, the dark mark when it is likely done.`,
        t`Above are all other clocks. What is pressed here is kept, with or without the network.`,
      ],
    },
  ],
  [
    /^\/log(\/\d+)?$/,
    {
      head: t`The log`,
      says: [
        t`Every batch stands on the map of its way, at the water and sugar it had.`,
        t`In a batch, each line is something that was told: the band its range, the mark what happened, green inside and red outside.`,
      ],
    },
  ],
  [
    /^\/log\/learned/,
    {
      head: t`What was learned`,
      says: [
        t`On each rule the pale bar is what cooks in general find, the dark one what this kitchen does, by its own makings.`,
      ],
    },
  ],
  [
    /^\/larder/,
    {
      head: t`The larder`,
      says: [
        t`Each bar is a hundred grams of the thing: water, sugar, starch, fat and the rest, in the textures of all drawings.`,
      ],
    },
  ],
];

export const readingAt = (path: string): Reading | null => PAGES.find(([page]) => page.test(path))?.[1] ?? null;
