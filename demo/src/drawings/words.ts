import { handOf, handwriting } from './handwriting.ts'
import { INK, LINE, PENCIL, stroke, times, type Drawing } from './kit.ts'

export const WIND_POEMS = [
  [
    'The wind is a loud boy',
    'who runs down our street',
    'and he kicks over bins',
    'with his big windy feet.',
  ],
  ['The wind is a cat', 'that sleeps on the sea', 'and when it wakes up', 'it runs after me.'],
  [
    'Wind, you are cheeky.',
    'You stole Grandma’s hat',
    'and gave it to the river.',
    'What do you say to that?',
  ],
  [
    'Soft wind, sea wind,',
    'wind that smells of rain,',
    'blow the boats to bed now',
    'and blow them back again.',
  ],
]

/** Lines on ruled paper, by one hand. */
const page =
  (lines: (chance: Parameters<Drawing>[0]) => string[]): Drawing =>
  (chance) => {
    const hand = handOf(chance)
    const ink = chance.pick([INK, INK, PENCIL])
    return {
      paper: 'ruled',
      content: lines(chance)
        .slice(0, 7)
        .map((line, i) => handwriting(chance, line, 150, 152 + i * 90, 50, ink, hand))
        .join(''),
    }
  }

export const poem = page((chance) => [
  ...chance.pick(WIND_POEMS),
  '',
  chance.pick(['He hums in the gate', 'whoosh whoosh whoosh', 'by me']),
])

export const storyPage = page((chance) =>
  chance.pick([
    [
      'The crab who was late',
      '',
      'One morning the tide did not',
      'come back. The crab waited',
      'on his stone and counted',
      'the gulls until there were',
      'none left to count.',
    ],
    [
      'The night ferry',
      '',
      'Nobody saw the small boat',
      'leave. It had one lamp and',
      'a sleepy dog. When the fog',
      'came the dog began to bark',
      'and the lamp went out.',
    ],
  ]),
)

export const letterHome = page((chance) =>
  chance.pick([
    [
      'Dear Gran,',
      'thank you for the seeds.',
      'We put them on the sill',
      'and three came up already.',
      '',
      'With love from me',
    ],
    [
      'Dear baker,',
      'thank you for the tour.',
      'I liked the big oven best',
      'and the bread was still warm.',
      '',
      'From all of us',
    ],
  ]),
)

export const instructions = page((chance) =>
  chance.pick([
    [
      'How to bake a roll',
      '1. Wash your hands.',
      '2. Push and turn the dough.',
      '3. Wait until it is bigger.',
      '4. Ask a grown-up for the oven.',
    ],
    [
      'How to fold a boat',
      '1. Take a square of paper.',
      '2. Fold it and press the edge.',
      '3. Open the pocket slowly.',
      '4. Pull both ends.',
    ],
  ]),
)

export const spellings: Drawing = (chance) => {
  const hand = handOf(chance)
  const words = ['through', 'island', 'breathe', 'harbour', 'weather', 'because', 'caught']
  return {
    paper: 'ruled',
    content: times(6, (i) => {
      const word = words[(i + Math.floor(chance.between(0, 7))) % words.length]!
      return `${handwriting(chance, word, 150, 152 + i * 90, 52, INK, hand)}${handwriting(chance, word, 520, 152 + i * 90, 52, PENCIL, hand)}<path d="M860 ${130 + i * 90} l16 20 l34 -50" ${stroke('#4c7a4f', 7)}/>`
    }),
  }
}

/** A story in three pictures with a line below each. */
export const comic: Drawing = (chance) => ({
  paper: 'plain',
  content: times(3, (i) => {
    const x = 50 + i * 305
    const [sun, hill] = [chance.between(130, 210), chance.pick(['#8fb06a', '#9cc4c9', '#d8b98c'])]
    return `<rect x="${x}" y="90" width="285" height="400" fill="#fbf7ee" stroke="${LINE}" stroke-width="7"/><path d="M${x + 4} 380 q140 -${chance.between(60, 120)} 277 0 v106 h-277 z" fill="${hill}"/><circle cx="${x + 210}" cy="${sun}" r="34" fill="#e6b24a"/>
      <circle cx="${x + 110}" cy="300" r="30" fill="#e9c3a0" stroke="${LINE}" stroke-width="6"/><path d="M${x + 110} 330 v80 M${x + 70} ${350 - i * 22} L${x + 110} 360 L${x + 150} ${370 - i * 26} M${x + 110} 410 l-26 56 M${x + 110} 410 l26 56" ${stroke(LINE, 8)}/>
      ${handwriting(chance, ['First I ran.', 'Then I fell.', 'Dad laughed!'][i]!, x + 14, 570, 40, INK)}`
  }),
})
