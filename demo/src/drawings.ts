import type { Chance } from './chance.ts'
import { handwriting } from './handwriting.ts'

/**
 * A child's page, 1000 x 720, as SVG content. Every draw differs a little: sizes, colours, wobble,
 * words.
 */
export type Drawing = (chance: Chance) => { paper: 'plain' | 'ruled' | 'squared'; content: string }

const CRAYONS = ['#d9704a', '#c9553f', '#e08b4f', '#b8602e', '#a9452f'] as const
const GREENS = ['#4c7a4f', '#6a8f3c', '#2a6f68', '#7d9a55'] as const
const BLUES = ['#2f5e8c', '#3f7fae', '#274b7a', '#5a93b8'] as const
const LINE = '#3a2a22'
const stroke = (colour: string, width: number) =>
  `fill="none" stroke="${colour}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"`

const crab: Drawing = (chance) => {
  const body = chance.pick(CRAYONS)
  const w = chance.between(150, 215)
  const h = chance.between(95, 125)
  const cx = 500 + chance.between(-40, 40)
  const cy = 400 + chance.between(-20, 30)
  const legs = [-1, 1].flatMap((side) =>
    [0, 1, 2, 3].map((i) => {
      const x = cx + side * w * (0.55 + i * 0.12)
      return `<path d="M${x} ${cy + h * 0.5} q${side * chance.between(50, 90)} 20 ${side * chance.between(60, 110)} ${chance.between(100, 150)}" ${stroke(LINE, 11)}/>`
    }),
  )
  const claws = [-1, 1].map(
    (side) =>
      `<path d="M${cx + side * w * 0.9} ${cy - 20} q${side * 120} -40 ${side * chance.between(80, 120)} -190 q${side * -20} 60 ${side * -45} 50 q${side * -10} -40 ${side * -30} -60 q${side * -30} 100 ${side * -60} 150 z" fill="${body}" stroke="${LINE}" stroke-width="9" stroke-linejoin="round"/>`,
  )
  const eyes = [-1, 1].map(
    (side) =>
      `<path d="M${cx + side * 55} ${cy - h} v-60" ${stroke(LINE, 12)}/><circle cx="${cx + side * 55}" cy="${cy - h - 72}" r="${chance.between(17, 24)}" fill="#2b2118"/>`,
  )
  return {
    paper: 'plain',
    content: `${legs.join('')}${claws.join('')}<ellipse cx="${cx}" cy="${cy}" rx="${w}" ry="${h}" fill="${body}" stroke="${LINE}" stroke-width="10"/>${eyes.join('')}
      <path d="M${cx - 60} ${cy + 30} q60 ${chance.between(30, 50)} 120 -4" ${stroke(LINE, 9)}/>
      ${handwriting(chance, 'claw', 110, 150, 46, LINE)}<path d="M215 155 L${cx - w * 1.2} 210" ${stroke('#2f5e8c', 6)}/>
      ${handwriting(chance, chance.pick(['legs x8', '8 legs', 'walks sideways']), 690, 640, 44, LINE)}`,
  }
}

const anemone: Drawing = (chance) => {
  const colour = chance.pick(['#a8486b', '#b7644a', '#8a5a9a', '#c07a3a'])
  const arms = Array.from({ length: 17 }, (_, i) => {
    const angle = Math.PI + (Math.PI * i) / 16
    const length = chance.between(150, 230)
    return `<path d="M${500 + Math.cos(angle) * 110} ${430 + Math.sin(angle) * 40} q${Math.cos(angle) * 60 + chance.between(-30, 30)} ${Math.sin(angle) * 120} ${Math.cos(angle) * length} ${Math.sin(angle) * length}" ${stroke(colour, 20)}/>`
  })
  return {
    paper: 'plain',
    content: `<path d="M60 600 q200 -60 420 -10 t460 0 v110 h-880 z" fill="#b9ab8c"/>${arms.join('')}<path d="M390 430 q110 60 220 0 l20 170 q-130 40 -260 0 z" fill="${colour}" stroke="${LINE}" stroke-width="8"/>
    ${[0, 1, 2, 3].map(() => `<path d="M${chance.between(60, 900)} ${chance.between(60, 160)} q30 -30 60 0 t60 0" ${stroke(chance.pick(BLUES), 7)}/>`).join('')}
    ${handwriting(chance, 'sea anemone', 320, 680, 46, '#f7f0df')}`,
  }
}

const bridge: Drawing = (chance) => {
  const bays = Math.round(chance.between(4, 7))
  const left = 170
  const width = 660
  const top = 260 + chance.between(-20, 20)
  const base = top + 150
  const step = width / bays
  const beams = Array.from({ length: bays }, (_, i) => {
    const x = left + i * step
    return `<path d="M${x} ${base} L${x + step / 2} ${top + chance.between(-6, 6)} L${x + step} ${base}" ${stroke(LINE, 8)}/>`
  })
  return {
    paper: 'squared',
    content: `<path d="M110 ${base - 10} q60 90 20 240 M890 ${base - 10} q-60 90 -20 240" ${stroke('#8a6b2e', 20)}/>${beams.join('')}
      <path d="M140 ${base} q360 ${chance.between(-12, 8)} 720 -2 M${left + step / 2} ${top} L${left + width - step / 2} ${top + chance.between(-8, 8)}" ${stroke(LINE, 10)}/>
      ${[0, 1].map((i) => `<path d="M120 ${630 + i * 34} q60 -30 120 0 t120 0 t120 0 t120 0 t120 0 t120 0" ${stroke(chance.pick(BLUES), 8)}/>`).join('')}
      ${handwriting(chance, chance.pick(['strong triangles', 'triangles hold', 'my straw bridge']), 320, 190, 48, '#54284f')}
      ${handwriting(chance, `${Math.round(chance.between(14, 34))} straws long`, 370, 540, 44, '#54284f')}`,
  }
}

const beaker: Drawing = (chance) => {
  const clay = chance.pick(['#b46a45', '#a85c3c', '#c07a50', '#9c6a4e'])
  const waist = chance.between(-20, 25)
  const bands = [0, 1, 2].map(
    (i) =>
      `<path d="M370 ${330 + i * 85} q32 -36 65 0 t65 0 t65 0 t65 0" ${stroke(chance.pick(['#e8c9a4', '#f1dcc0', '#7a3f2a']), chance.between(7, 12))}/>`,
  )
  return {
    paper: 'plain',
    content: `<rect x="-40" y="-40" width="1080" height="800" fill="#c9b48d"/><ellipse cx="520" cy="628" rx="260" ry="46" fill="#000" opacity="0.25"/>
      <path d="M340 200 Q${330 + waist} 420 372 610 Q500 660 628 610 Q${670 - waist} 420 660 200 Z" fill="${clay}"/>
      <path d="M340 200 Q${330 + waist} 420 372 610 Q430 634 470 636 Q${420 + waist} 420 430 205 Z" fill="#fff" opacity="0.13"/>
      <path d="M560 206 Q${600 - waist} 420 560 632 Q600 626 628 610 Q${670 - waist} 420 660 200 Z" fill="#000" opacity="0.2"/>${bands.join('')}
      <ellipse cx="500" cy="200" rx="160" ry="46" fill="${clay}" stroke="#e0b08c" stroke-width="7"/><ellipse cx="500" cy="206" rx="134" ry="33" fill="#4d2a1c"/>`,
  }
}

/** What a class wrote about the wind, line by line. */
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
const poem: Drawing = (chance) => ({
  paper: 'ruled',
  content: [
    ...chance.pick(WIND_POEMS),
    '',
    chance.pick(['He hums in the gate', 'whoosh whoosh whoosh', 'by me']),
  ]
    .map((line, i) =>
      handwriting(
        chance,
        line,
        165,
        152 + i * 90,
        52,
        chance.pick(['#2b3350', '#2b3350', '#3a3348']),
      ),
    )
    .join(''),
})

const map: Drawing = (chance) => {
  const house = (x: number, y: number, colour: string) =>
    `<path d="M${x} ${y} l55 -50 l55 50 v70 h-110 z" fill="${colour}" stroke="${LINE}" stroke-width="6" stroke-linejoin="round"/><rect x="${x + 42}" y="${y + 30}" width="26" height="40" fill="${LINE}"/>`
  return {
    paper: 'plain',
    content: `<path d="M-20 560 q260 -120 520 -30 t560 -60 v320 h-1100 z" fill="${chance.pick(['#a8cdc0', '#9cc4c9', '#b5d2b0'])}"/>
      <path d="M-10 330 q180 -110 340 20 t360 -10 t340 -120" ${stroke('#b0803f', 30)}/><path d="M470 370 q-20 120 60 220" ${stroke('#b0803f', 22)}/>
      ${house(150 + chance.between(-30, 30), 180, '#d9704a')}${house(420 + chance.between(-40, 40), 150, '#d8a63c')}${house(700 + chance.between(-40, 40), 130, '#5a7fae')}
      ${[0, 1, 2, 3, 4].map(() => `<circle cx="${chance.between(80, 920)}" cy="${chance.between(400, 470)}" r="${chance.between(20, 34)}" fill="${chance.pick(GREENS)}"/>`).join('')}
      ${handwriting(chance, 'my house', 130, 310, 36, LINE)}${handwriting(chance, 'bakery', 440, 285, 36, LINE)}${handwriting(chance, 'school', 710, 265, 36, LINE)}
      ${handwriting(chance, 'the salt marsh', 380, 660, 46, '#275a5a')}`,
  }
}

const bread: Drawing = (chance) => {
  const crust = chance.pick(['#b9772f', '#a9662a', '#c58a42'])
  return {
    paper: 'plain',
    content: `<rect x="-40" y="-40" width="1080" height="800" fill="#9d8d7a"/><rect x="140" y="180" width="720" height="430" rx="30" fill="#c9a877" stroke="#8c6b3f" stroke-width="8"/>
      <ellipse cx="500" cy="480" rx="300" ry="60" fill="#000" opacity="0.22"/><path d="M220 450 q0 -220 280 -220 t280 220 q-280 90 -560 0 z" fill="${crust}"/>
      <path d="M240 430 q10 -180 260 -185 q-160 40 -190 200 z" fill="#fff" opacity="0.16"/>
      ${[0, 1, 2, 3].map((i) => `<path d="M${330 + i * 95} ${300 + Math.abs(i - 1.5) * 14} q40 40 20 ${chance.between(90, 130)}" ${stroke('#f0d9ae', 16)}/>`).join('')}
      ${Array.from({ length: 40 }, () => `<circle cx="${chance.between(230, 770)}" cy="${chance.between(300, 460)}" r="${chance.between(1.5, 4)}" fill="#f6ead0" opacity="0.7"/>`).join('')}`,
  }
}

const leaves: Drawing = (chance) => ({
  paper: 'plain',
  content:
    Array.from({ length: 7 }, () => {
      const x = chance.between(140, 860)
      const y = chance.between(140, 560)
      const colour = chance.pick([...GREENS, '#c58a2e', '#a9552f'])
      const veins = [-60, -20, 20, 60]
        .map((d) => `<path d="M0 ${d} l45 -28 M0 ${d} l-45 -28" ${stroke('#fbf7ee', 4)}/>`)
        .join('')
      return `<g transform="translate(${x} ${y}) rotate(${chance.between(-90, 90)}) scale(${chance.between(0.7, 1.15)})"><path d="M0 -120 Q90 -30 0 120 Q-90 -30 0 -120 z" fill="${colour}" opacity="0.88"/><path d="M0 -110 V150" ${stroke('#6b5030', 7)}/>${veins}</g>`
    }).join('') + handwriting(chance, 'autumn leaf print', 300, 680, 46, LINE),
})

const sums: Drawing = (chance) => ({
  paper: 'squared',
  content: Array.from({ length: 8 }, (_, i) => {
    const a = Math.round(chance.between(11, 60))
    const b = Math.round(chance.between(7, 39))
    const x = 120 + (i % 2) * 430
    const y = 170 + Math.floor(i / 2) * 150
    return `${handwriting(chance, `${a} + ${b} = ${a + b}`, x, y, 62, '#2b3350')}<path d="M${x + 320} ${y - 20} l14 18 l30 -46" ${stroke('#4c7a4f', 7)}/>`
  }).join(''),
})

const boat: Drawing = (chance) => ({
  paper: 'plain',
  content: `<path d="M-20 520 q80 -50 160 0 t160 0 t160 0 t160 0 t160 0 t160 0 t160 0 v260 h-1120 z" fill="${chance.pick(BLUES)}" opacity="0.75"/>
    <path d="M260 470 h460 l-80 120 h-300 z" fill="${chance.pick(CRAYONS)}" stroke="${LINE}" stroke-width="8"/><path d="M490 460 V120" ${stroke('#6b5030', 14)}/>
    <path d="M505 130 q${chance.between(180, 260)} 150 ${chance.between(150, 210)} 310 h-200 z" fill="#f3e3bd" stroke="${LINE}" stroke-width="7"/><path d="M475 160 q-150 130 -170 280 h170 z" fill="#e6b24a" stroke="${LINE}" stroke-width="7"/>
    <circle cx="850" cy="140" r="64" fill="#e6b24a"/>${handwriting(chance, 'it floats!', 120, 130, 54, LINE)}`,
})

export const DRAWINGS = {
  crab,
  anemone,
  bridge,
  beaker,
  poem,
  map,
  bread,
  leaves,
  sums,
  boat,
} as const
export type DrawingName = keyof typeof DRAWINGS
