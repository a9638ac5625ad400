/** What each kind and base is good for, how large it usually is and what goes wrong with it: for those new to it. */

export interface Guide {
  readonly goodFor: string;
  /** Common practice, no source. */
  readonly sizes: string;
  readonly goesWrong: readonly string[];
}

export const GUIDES: Readonly<Record<string, Guide>> = {
  'step-fold': {
    goodFor: 'Stairs, tables, terraces, stages: anything that stands square when the card is half open.',
    sizes: 'A quarter to a third of the leaf each way; width from a fifth of the gutter.',
    goesWrong: [
      'Depth and height together past the leaf: it pokes out when shut.',
      'A riser that is not as high as it should be: it does not fold flat.',
      'Narrow steps beside each other leave webs that tear.',
    ],
  },
  'plane-stack': {
    goodFor: 'Scenery in layers that stand one behind the other, with platforms between.',
    sizes: 'Planes 10 to 25 mm apart; the one in front lower than the one behind.',
    goesWrong: ['Depth and height of a plane together past the leaf.', 'A plane that hides all of the one behind it.'],
  },
  'strut-figure': {
    goodFor: 'A silhouette that stands up in front of the fold on small struts cut from it.',
    sizes: 'Depth 10 to 30 mm; struts 4 to 8 mm wide, a handful of them.',
    goesWrong: ['Struts under 3 mm tear.', 'A tall figure far in front reaches past the fore edge.'],
  },
  'half-cut': {
    goodFor: 'A figure on the front that stays standing when the card opens: easel and tent cards.',
    sizes: 'Rising a fifth of the leaf past the fold.',
    goesWrong: ['A figure that rises more than it is high.', 'Too little of it joined to the leaf: it flops.'],
  },
  'floating-band': {
    goodFor: 'Something that hangs over the fold and turns or floats as the card opens.',
    sizes: 'A band a third of the leaf long; what it carries stays inside the window.',
    goesWrong: [
      'What it carries is wider than the leaf when shut.',
      'A band too short to fold: it pulls at the slits.',
    ],
  },
  'v-fold': {
    goodFor: 'Wings, beaks, roofs, walls: stands at an angle to the fold and moves most while opening.',
    sizes: 'Lean of 45 to 70 degrees; tabs of 8 to 12 mm.',
    goesWrong: ['Tabs glued not quite alike: it leans.', 'Steep ones that are long poke out past the fore edge.'],
  },
  'leaf-bundle': {
    goodFor: 'Round things: planets, lanterns, balloons, of many leaves that fan out.',
    sizes: 'Five to ten leaves, no higher than two thirds of the leaf.',
    goesWrong: ['Many leaves make the shut card thick.', 'Leaves wider than the leaf they lie in.'],
  },
  'step-strips': {
    goodFor: 'Tiers of strips over the fold, seats of a theatre, a bowed front.',
    sizes: 'Strips 10 to 20 mm; each tier a little in front of the one before.',
    goesWrong: ['Tiers of one depth touch.', 'A bow longer than what it spans bulges past the edge.'],
  },
  'twist-fold': {
    goodFor: 'Arms that swing out as the card closes: a dome that opens, a door, a greeting.',
    sizes: 'Half width a third of the arm.',
    goesWrong: ['Arms that reach past the leaf when shut.', 'A train that is wider than the strip bends more.'],
  },
  volvelle: {
    goodFor: 'A disc that is turned behind windows: phases, dates, answers.',
    sizes: 'Discs of 60 to 120 mm; an eyelet or a rivet with a head twice its hole.',
    goesWrong: ['A disc that is not covered all the way round.', 'Foam too thin: it binds.'],
  },
  'track-slider': {
    goodFor: 'Something that runs along a slot, straight or curved: comets, boats, trains.',
    sizes: 'A slot a little over the stem; a token or coin behind it that cannot come through.',
    goesWrong: ['A slot as wide as the token.', 'A curve tighter than what runs in it.'],
  },
  'lift-tab': {
    goodFor: 'A tab that is lifted, and something rises with it.',
    sizes: 'A strip of 15 to 25 mm; a tab that a finger finds, 10 mm or more.',
    goesWrong: ['A tab too short for a finger.', 'A strip cut across the grain bends instead of lifting.'],
  },
  waterfall: {
    goodFor: 'Panels that turn over one after another as a strip is pulled.',
    sizes: 'Three to five panels; pitch a third of their height.',
    goesWrong: ['Panels glued too low hit the belt.', 'A belt that is too long comes out of the card.'],
  },
  'carrier-wheel': {
    goodFor: 'Upright things that ride round on a wheel and stay upright or turn with it.',
    sizes: 'Arms long enough that neighbours pass each other.',
    goesWrong: ['Carriers that touch their neighbours.', 'A hub too small for the rivet’s head.'],
  },
  pocket: {
    goodFor: 'A pocket for a ticket, a letter or a gift card.',
    sizes: '2 mm of play round what goes in; a notch for the thumb.',
    goesWrong: ['No play: what goes in sticks.', 'Tape narrower than 6 mm lets go.'],
  },
  'z-window': {
    goodFor: 'A piece that shows in a window of the cover and is drawn out as the card opens.',
    sizes: 'Three panels, the third as long as the second at least.',
    goesWrong: ['A piece larger than its window catches.', 'Panels that reach past the fold.'],
  },
  'folded-figure': {
    goodFor: 'Wings, petals, leaves and doors that stand up from the page and are stuck down by one half.',
    sizes: 'Glued over 6 mm and more; the fold 10 mm or longer.',
    goesWrong: ['Glue over the fold: it does not lift.', 'A free half that lies over something that moves.'],
  },
  'own-lines': {
    goodFor: 'What no list foresaw: your own cuts, creases and windows, on anything that is there.',
    sizes: 'Webs between cuts of 3 mm and more.',
    goesWrong: ['A crease that ends in the paper folds nothing.', 'A cut all round falls out.'],
  },
  'fold-card': {
    goodFor: 'The plain folded card, on its side or as a tent, with or without a liner.',
    sizes: 'As large as its envelope takes, less the ease.',
    goesWrong: ['The fold across the grain cracks.', 'Thick card without a spine gapes.'],
  },
  'gate-insert': {
    goodFor: 'A card with an insert that stands while its gates open.',
    sizes: 'The insert a few mm smaller all round.',
    goesWrong: ['An insert as large as the card shows at the edges.'],
  },
  easel: {
    goodFor: 'A card that stands by itself on the shelf.',
    sizes: 'The stop a third up from the foot.',
    goesWrong: ['A stop too low: it falls backwards.', 'A flap longer than the strut allows.'],
  },
  'box-frame': {
    goodFor: 'A scene in a box that folds flat for the post.',
    sizes: 'Depth of 30 to 60 mm.',
    goesWrong: ['Tabs glued out of square: it does not close.', 'Panels that touch when it folds.'],
  },
};
