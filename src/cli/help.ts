/** What a verb takes, as `rhabdoplex VERB --help` tells it. */

interface Help {
  /** What stands after the verb. */
  readonly takes: string;
  readonly says: string;
  /** Of every option its value, if it has one, and what it does. */
  readonly options: Readonly<Record<string, readonly [value: string, says: string]>>;
}

const STATE = 'NAME=V';
const HELP: Readonly<Record<string, Help>> = {
  kinds: { takes: '', says: 'lists kinds of mechanisms and bases with what they take', options: {} },
  new: {
    takes: 'OUT key=value …',
    says: 'writes a card with one mechanism on it, or on a base whose numbers the pairs say',
    options: {
      card: [
        'GUTTERxREACH',
        'size of a plain card in mm or with units: the gutter, then each leaf from the gutter to its fore edge, ' +
          'as 200x140 or "8in x 5 1/2in"',
      ],
      kind: ['ID', 'kind of the mechanism or of the base; `kinds` lists them'],
      on: ['MECH.CREASE|FACET', 'what it stands on; the gutter, or the face that suits it, unless said'],
      side: ['inside|outside', 'of the facet it goes on'],
      at: ['X,Y[,TURN]', 'its place from the middle of the facet, mm and degrees'],
      id: ['ID', 'its name in files'],
      stock: ['STOCK', 'what it is cut from, by id or name of a stock of the card'],
      piece: ['PIECE=STOCK', 'one of its pieces, cut from another stock; may be given again and again'],
      name: ['TEXT', 'name of the card'],
      add: ['', 'puts it into OUT, which is there already'],
    },
  },
  pose: {
    takes: 'FILE',
    says: 'every facet, crease and measure where a state has them',
    options: {
      open: ['DEG', 'angle between the leaves: 0 shut, 180 flat'],
      state: ['NAME', 'a state that has a name, by that or its id'],
      drive: [STATE, 'where a hand has moved something; may be given again and again'],
      seconds: ['S', 'gives up after so long'],
    },
  },
  prove: {
    takes: 'FILE',
    says: 'findings with remedies, the verdict, sizes and travel; ends with 3 where something blocks',
    options: {
      steps: ['N', 'poses of the opening that are looked at'],
      seek: ['FINDING', 'looks for remedies of one finding with all there is to spend'],
    },
  },
  pattern: {
    takes: 'FILE',
    says: 'writes what is cut, or the posed card',
    options: {
      as: ['svg|dxf|pdf|fold|glb|hpgl|gcode', 'kind of the file'],
      out: ['PATH', 'the file to write'],
      piece: ['ID', 'one piece only'],
      open: ['DEG', 'how far it is open, for glb'],
      drive: [STATE, 'where a hand has moved something, for glb'],
      side: ['inside|outside', 'the side that is drawn'],
      sheet: ['N', 'one sheet of the layout'],
      bed: ['N', 'one part of it that the machine holds'],
      pass: ['PASS', 'one pass of the machine'],
      page: ['SIZE', 'pages of a printer, such as A4'],
      profile: ['FILE', 'the machine that cuts it'],
      strip: ['', 'the test strip in place of the card'],
      print: ['', 'with artwork, bleed and marks'],
    },
  },
  sheets: {
    takes: 'FILE …',
    says: 'lays the pieces out on sheets by their true outlines',
    options: {
      seconds: ['S', 'searches so long'],
      seed: ['N', 'another search'],
      turn: ['PIECE', 'a piece that may lie across the grain; may be given again and again'],
    },
  },
  cut: {
    takes: 'PATH',
    says: 'what a cutter makes of a file: time, ways, what is left uncut or cut twice',
    options: { profile: ['FILE', 'the machine'], against: ['DRAWING', 'what it was to cut'] },
  },
  cutlist: { takes: 'FILE', says: 'pieces, sizes, stocks, glue', options: { as: ['json|csv', 'how it is written'] } },
  booklet: { takes: 'FILE', says: 'writes the steps of the work as a PDF', options: { out: ['X.pdf', 'the file'] } },
  bundle: {
    takes: 'FILE …',
    says: 'writes all files of cards as one archive',
    options: { out: ['X.zip', 'the file'] },
  },
  fold: {
    takes: 'FILE.fold',
    says: 'folds a flat crease pattern and poses it',
    options: {
      fraction: ['F', 'how far its first crease is folded: 0 to 1'],
      seconds: ['S', 'gives up after so long'],
    },
  },
  bring: {
    takes: 'FROM.svg|FROM.dxf OUT',
    says: 'writes a card from a template',
    options: {
      scale: ['F', 'times as large'],
      role: ['LAYER=ROLE', 'what the lines of a layer or colour are; may be given again and again'],
      gutter: ['CREASE', 'the crease that the card opens about'],
      mend: ['', 'closes small gaps and takes double lines out'],
      joins: ['all|FILE', 'ties the pieces together'],
      folds: ['N', 'the so-manieth choice of mountains and valleys that folds flat'],
      name: ['PIECE=NAME', 'what a piece is called; may be given again and again'],
      piece: ['PIECE=STOCK', 'a piece that is cut from another stock; may be given again and again'],
      as: ['waterfall', 'the working mechanism that the pieces are parts of'],
    },
  },
  check: { takes: 'FILE', says: 'reads a card and says what is wrong, and where', options: {} },
  study: {
    takes: 'FILE',
    says: 'makes the card many times over with the scatter of hands and machines',
    options: {
      made: ['N', 'so many'],
      seed: ['N', 'other hands'],
      part: ['K/N', 'the K-th of N parts'],
      join: ['', 'joins what parts gave: study --join A B …'],
      cut: ['MM', 'scatter of cuts'],
      score: ['MM', 'scatter of folds'],
      fold: ['DEG', 'scatter of a folded angle'],
      glue: ['MM', 'scatter of what is glued'],
      'glue-turn': ['DEG', 'scatter of its turn'],
    },
  },
  target: {
    takes: 'FILE',
    says: 'looks for numbers that give wanted measures; ends with 3 where it finds none',
    options: {
      want: ['MECH.MEASURE=VALUE[@OPEN]', 'also >=, <=, =max, =min; may be given again and again'],
      free: ['MECH.KEY', 'a number that may change; may be given again and again'],
      within: ['ENVELOPE', 'it has to fit this envelope'],
      part: ['K/N', 'the K-th of N parts'],
      join: ['', 'joins what parts gave: target --join A B …'],
    },
  },
  batch: {
    takes: 'VERB … < LINES',
    says: 'runs prove, pose, cutlist, study or target for every line of JSON: {"id", "file"} or a card',
    options: {
      from: ['FILE', 'the lines, in place of standard input'],
      part: ['K/N', 'the K-th of N parts of the lines'],
      join: ['', 'joins what parts gave: batch --join A B …'],
    },
  },
};

/** Lengths are read as in every field. */
const LENGTHS = 'Lengths: 25 (mm), 1 1/8in, 29.7cm/2; angles: 45. Values that are not numbers are JSON.';

/** @returns the lines to print; null for a verb that is not known */
export function helpOf(verb: string): string | null {
  if (!Object.hasOwn(HELP, verb)) return null;
  const { takes, says, options } = HELP[verb];
  const lines = Object.entries(options).map(([name, [value, what]]) => {
    const head = `  --${name}${value === '' ? '' : ` ${value}`}`;
    return `${head.padEnd(WIDE)} ${what}`;
  });
  return [`rhabdoplex ${verb} ${takes}`.trimEnd(), `  ${says}`, ...lines, `  ${LENGTHS}`, ''].join('\n');
}
const WIDE = 36;
