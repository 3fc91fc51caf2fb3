import type { Colour, FolderSymbol } from '@nibquill/core'
import type { DrawingName } from './drawings/index.ts'

export type DemoFolder = {
  name: string
  symbol: FolderSymbol
  colour: Colour
  strand: string
  parentsSee: boolean
  wholeSchool: boolean
}
export const FOLDERS: DemoFolder[] = [
  {
    name: 'Rock pools',
    symbol: 'waves',
    colour: 'sea',
    strand: 'Living things',
    parentsSee: true,
    wholeSchool: false,
  },
  {
    name: 'Bridges and beams',
    symbol: 'bridge',
    colour: 'ochre',
    strand: 'Making and building',
    parentsSee: true,
    wholeSchool: false,
  },
  {
    name: 'Bread and clay',
    symbol: 'pot',
    colour: 'clay',
    strand: 'Making and building',
    parentsSee: true,
    wholeSchool: true,
  },
  {
    name: 'Wind poems',
    symbol: 'wind',
    colour: 'verdigris',
    strand: 'Words',
    parentsSee: true,
    wholeSchool: true,
  },
  {
    name: 'Our village map',
    symbol: 'map',
    colour: 'moss',
    strand: 'Places and people',
    parentsSee: true,
    wholeSchool: true,
  },
  {
    name: 'Number talks',
    symbol: 'abacus',
    colour: 'indigo',
    strand: 'Number',
    parentsSee: false,
    wholeSchool: false,
  },
  {
    name: 'Out of class',
    symbol: 'home-heart',
    colour: 'aubergine',
    strand: 'Out of class',
    parentsSee: true,
    wholeSchool: true,
  },
]

/** What pupils make for a folder: which picture, and what they call it and think of it. */
export const WORKS: Record<
  string,
  { drawing: DrawingName; titles: string[]; thoughts: string[] }[]
> = {
  'Rock pools': [
    {
      drawing: 'crab',
      titles: ['Rock pool crab', 'Crab with labels', 'Shore crab'],
      thoughts: [
        'I learned that it walks sideways. Next I would draw the eyes on stalks.',
        'What went well is the claws. I counted all eight legs.',
        'I learned that crabs breathe under water and out of it.',
      ],
    },
    {
      drawing: 'anemone',
      titles: ['Anemone, week 3', 'What lives here', 'Sea anemone'],
      thoughts: [
        'It looks like a flower but it is an animal that eats.',
        'I would change the rocks. They look like clouds.',
        'It closes when the sea goes out.',
      ],
    },
    {
      drawing: 'fish',
      titles: ['A fish and its parts', 'Pool fish', 'Blenny'],
      thoughts: [
        'I learned that gills take air out of water.',
        'I labelled four parts and one is hard to say.',
      ],
    },
    {
      drawing: 'seaweed',
      titles: ['Pressed seaweed', 'Seaweed from the groyne'],
      thoughts: ['It went flat after two days under books.', 'It smells of the sea still.'],
    },
    {
      drawing: 'shells',
      titles: ['Shells in rows', 'What the tide left'],
      thoughts: ['I sorted them by size and then by colour.', 'There are three rows of five.'],
    },
    {
      drawing: 'gull',
      titles: ['The gull', 'Bird of the marsh'],
      thoughts: ['It has a yellow beak with a red dot.', 'I watched it for a whole play time.'],
    },
  ],
  'Bridges and beams': [
    {
      drawing: 'bridge',
      titles: ['Straw bridge plan', 'Bridge, try 1', 'Bridge with triangles'],
      thoughts: [
        'Triangles do not wobble. Squares do.',
        'It held a tin of beans for ten seconds. Next I would make it wider.',
        'I learned to plan before I cut the straws.',
      ],
    },
    {
      drawing: 'beamTest',
      titles: ['Which bridge held longest', 'Our bridge test'],
      thoughts: [
        'The truss won. I think it is the triangles.',
        'We did it three times to be fair.',
      ],
    },
    {
      drawing: 'lighthouse',
      titles: ['Lighthouse from boxes', 'My model lighthouse'],
      thoughts: [
        'The tube was wobbly so I put stones in the box.',
        'Next I would make a real lamp.',
      ],
    },
  ],
  'Bread and clay': [
    {
      drawing: 'beaker',
      titles: ['My clay beaker', 'Beaker with waves', 'Old style beaker'],
      thoughts: [
        'I learned to push the clay so that no air is in it.',
        'The pattern went well. I used a stick.',
        'It cracked a bit when it dried and I mended it with slip.',
      ],
    },
    {
      drawing: 'bread',
      titles: ['My first loaf', 'Bread we baked', 'Seeded bread'],
      thoughts: [
        'It got bigger because the yeast makes gas.',
        'It smelled so good. We ate it with butter.',
        'Next time I would knead it longer.',
      ],
    },
    {
      drawing: 'weaving',
      titles: ['Weaving, first try', 'My woven mat'],
      thoughts: [
        'Over and under, over and under.',
        'I pulled too tight at the edge and it went thin.',
      ],
    },
    {
      drawing: 'mosaic',
      titles: ['Sun mosaic', 'A floor like long ago'],
      thoughts: ['I cut two hundred squares.', 'From far away you see the sun.'],
    },
  ],
  'Wind poems': [
    {
      drawing: 'poem',
      titles: ['The wind is a loud boy', 'My wind poem', 'Wind poem, second draft'],
      thoughts: [
        'I like the line about the feet because wind has no feet.',
        'I changed three words after I read it aloud.',
        'What went well is that it rhymes.',
      ],
    },
    {
      drawing: 'storyPage',
      titles: ['A story by the sea', 'My own story, page 1'],
      thoughts: ['I like the beginning best.', 'I used a question to make people read on.'],
    },
    {
      drawing: 'letterHome',
      titles: ['A letter that I really sent', 'Thank you letter'],
      thoughts: ['I put a stamp on it myself.', 'I said what I liked and why.'],
    },
    {
      drawing: 'instructions',
      titles: ['How to do it', 'Steps for somebody else'],
      thoughts: ['My friend could do it from my steps.', 'I used bossy verbs.'],
    },
    {
      drawing: 'comic',
      titles: ['What happened to me', 'Three pictures, one story'],
      thoughts: ['It is true and a bit funny.', 'Drawing it first helped me to write it.'],
    },
    {
      drawing: 'spellings',
      titles: ['My spellings', 'Six hard words'],
      thoughts: ['I look, cover, write and check.', 'The silent letters are the hardest.'],
    },
  ],
  'Our village map': [
    {
      drawing: 'map',
      titles: ['Map of my way to school', 'Our village from above', 'The salt marsh map'],
      thoughts: [
        'I walked it with Dad to check the corner.',
        'Maps look from above like a bird.',
        'I would add a key next time.',
      ],
    },
    {
      drawing: 'islandMap',
      titles: ['Treasure island', 'Island with a key'],
      thoughts: ['Everything on it is in the key.', 'I used squares to say where it is.'],
    },
    {
      drawing: 'wayToSchool',
      titles: ['My way to school', 'How I walk'],
      thoughts: ['I counted the minutes.', 'I drew what I pass and left out the rest.'],
    },
    {
      drawing: 'weatherWeek',
      titles: ['Our weather week', 'Five days of sky'],
      thoughts: ['It rained on the day I thought.', 'I read the thermometer at nine each day.'],
    },
    {
      drawing: 'timeline',
      titles: ['My life so far', 'A line of my life'],
      thoughts: ['I asked Mum when I walked.', 'It has more at the end because I remember more.'],
    },
  ],
  'Number talks': [
    {
      drawing: 'sums',
      titles: ['Adding two-digit numbers', 'Number talk, week 4'],
      thoughts: ['I do the tens first and then the ones.', 'I can do it in my head now.'],
    },
    {
      drawing: 'tenFrames',
      titles: ['Ways to make ten', 'Ten-frames'],
      thoughts: ['I see five and then some more.', 'If I know one I know the other.'],
    },
    {
      drawing: 'clockFaces',
      titles: ['What time is it?', 'Clocks'],
      thoughts: ['The short hand moves as well.', 'Half past is when the long one points down.'],
    },
    {
      drawing: 'symmetry',
      titles: ['Folded butterfly', 'The same on both sides'],
      thoughts: [
        'I painted one half and folded it.',
        'Both sides are the same but one is flipped.',
      ],
    },
    {
      drawing: 'fractions',
      titles: ['Pizza parts', 'How much is eaten'],
      thoughts: ['Eighths are smaller than quarters.', 'Two quarters are the same as a half.'],
    },
    {
      drawing: 'tallyChart',
      titles: ['Past our window', 'Tally of the road'],
      thoughts: ['Every fifth one goes across.', 'There are more gulls than dogs here.'],
    },
    {
      drawing: 'hundredSquare',
      titles: ['Counting in steps', 'A pattern in a hundred'],
      thoughts: ['It makes stripes.', 'I could see what comes next.'],
    },
  ],
  'Out of class': [
    {
      drawing: 'leaves',
      titles: ['Leaf prints at Gran’s', 'Autumn walk'],
      thoughts: ['We found seven kinds of leaf.', 'Gran showed me how to press them.'],
    },
    {
      drawing: 'boat',
      titles: ['Boat that really floats', 'Harbour day boat'],
      thoughts: [
        'I made it on Saturday and it floats in the bath.',
        'The sail fell off twice. I used more tape.',
      ],
    },
    {
      drawing: 'kite',
      titles: ['My kite', 'Kite day'],
      thoughts: ['It went up after eleven tries.', 'Dad held the string and I ran.'],
    },
    {
      drawing: 'seedDiary',
      titles: ['My bean diary', 'Four weeks of a bean'],
      thoughts: ['It grew most in week three.', 'It leaned to the window so I turned it.'],
    },
  ],
}

export type DemoTask = {
  title: string
  folder: string
  instructions: string
  dueInDays: number
  dueHour: number
  folderChangeable: boolean
  asksThoughts: boolean
  /** What fits it, where not everything that goes into the folder does. */
  drawings: DrawingName[]
  /** It comes with a starter sheet. */
  withSheet?: true
}
export const TASKS: Record<'Heron' | 'Plover', DemoTask[]> = {
  Heron: [
    {
      title: 'Rock pool survey',
      folder: 'Rock pools',
      instructions:
        'Choose one animal from our rock pool. Draw it large and label at least three parts.',
      dueInDays: 1,
      dueHour: 15,
      folderChangeable: false,
      asksThoughts: false,
      drawings: ['crab', 'anemone', 'fish'],
    },
    {
      title: 'Plan your bridge',
      folder: 'Bridges and beams',
      instructions: 'Draw the bridge you want to build from straws. Show where the triangles go.',
      dueInDays: 2,
      dueHour: 14,
      folderChangeable: true,
      asksThoughts: true,
      drawings: ['bridge'],
    },
    {
      title: 'Write your wind poem',
      folder: 'Wind poems',
      instructions:
        'Write four lines about the wind as if it were somebody. Take a photo of the page.',
      dueInDays: 5,
      dueHour: 15,
      folderChangeable: false,
      asksThoughts: false,
      drawings: ['poem'],
    },
  ],
  Plover: [
    {
      title: 'What lives here?',
      folder: 'Rock pools',
      instructions: 'Sort the cards. Then draw one thing that lives in a rock pool.',
      dueInDays: 3,
      dueHour: 15,
      folderChangeable: false,
      asksThoughts: false,
      drawings: ['crab', 'anemone', 'fish', 'shells'],
      withSheet: true,
    },
  ],
}

export const PRAISE = [
  'Lovely labels.',
  'I can see you planned this.',
  'What a strong line.',
  'You kept going. Well done.',
  '',
  '',
]
export const NEXT_STEPS = [
  'Can you name three more parts?',
  'Show me where the triangles go, then hand it in again.',
  'Please write one more line about the sound.',
  'The photo is a little dark. Can you take it by the window?',
]
export const REASONS = [
  'I picked this because it took two goes.',
  'I am proud of the pattern.',
  'It shows what I found out.',
  'My family liked it best.',
  'It is the neatest I have done.',
]

/** A plan for a bridge, typed at home. */
export const PLAN_LINES = [
  'Thirty paper straws',
  'Sticky tape, not too much',
  'Two piles of books to stand on',
  'Triangles at both sides',
  'A toy car to drive over it',
  'Coins in a cup, until it bends',
] as const
