import type { Colour, FolderSymbol } from '@nibquill/core'
import type { DrawingName } from './drawings.ts'

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
  ],
  'Number talks': [
    {
      drawing: 'sums',
      titles: ['Adding two-digit numbers', 'Number talk, week 4'],
      thoughts: ['I do the tens first and then the ones.', 'I can do it in my head now.'],
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
  ],
}

export type DemoTask = {
  title: string
  folder: string
  instructions: string
  dueInDays: number
  dueHour: number
  folderChangeable: boolean
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
    },
    {
      title: 'Plan your bridge',
      folder: 'Bridges and beams',
      instructions: 'Draw the bridge you want to build from straws. Show where the triangles go.',
      dueInDays: 2,
      dueHour: 14,
      folderChangeable: true,
    },
    {
      title: 'Write your wind poem',
      folder: 'Wind poems',
      instructions:
        'Write four lines about the wind as if it were somebody. Take a photo of the page.',
      dueInDays: 5,
      dueHour: 15,
      folderChangeable: false,
    },
  ],
  Plover: [
    {
      title: 'What lives here?',
      folder: 'Rock pools',
      instructions: 'Draw one thing that lives in a rock pool.',
      dueInDays: 3,
      dueHour: 15,
      folderChangeable: false,
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
