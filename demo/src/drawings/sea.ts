import { handwriting } from './handwriting.ts'
import {
  BLUES,
  CRAYONS,
  ground,
  GREENS,
  INK,
  LINE,
  PENCIL,
  stroke,
  times,
  type Drawing,
} from './kit.ts'

export const crab: Drawing = (chance) => {
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

export const anemone: Drawing = (chance) => {
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

/** Pressed seaweed on paper, with its name. */
export const seaweed: Drawing = (chance) => {
  const colour = chance.pick(['#5b3a3f', '#4f5a2e', '#7a3b4a'])
  const frond = (x: number, lean: number, height: number) =>
    `<path d="M500 640 Q${x} ${640 - height / 2} ${x + lean} ${640 - height}" ${stroke(colour, 9)}/>` +
    times(7, (i) => {
      const t = (i + 2) / 9
      const [fx, fy] = [500 + (x + lean - 500) * t, 640 - height * t]
      const side = i % 2 ? 1 : -1
      return `<path d="M${fx} ${fy} q${side * 40} -20 ${side * chance.between(50, 90)} ${-chance.between(40, 80)}" ${stroke(colour, 7)} opacity="0.85"/>`
    })
  return {
    paper: 'plain',
    content: `${times(5, (i) => frond(300 + i * 100, chance.between(-60, 60), chance.between(330, 480)))}
      <rect x="600" y="90" width="320" height="80" fill="#fffdf4" stroke="${PENCIL}" stroke-width="3"/>${handwriting(chance, chance.pick(['red seaweed', 'bladder wrack', 'sea lettuce']), 620, 145, 40, PENCIL)}`,
  }
}

/** A fish with its parts named. */
export const fish: Drawing = (chance) => {
  const colour = chance.pick([...BLUES, ...CRAYONS])
  return {
    paper: 'plain',
    content: `<path d="M180 380 Q430 ${chance.between(130, 200)} 700 370 L860 ${chance.between(230, 280)} Q810 380 870 ${chance.between(490, 540)} L700 400 Q430 ${chance.between(560, 620)} 180 380 z" fill="${colour}" stroke="${LINE}" stroke-width="9" stroke-linejoin="round"/>
      ${times(18, (i) => `<path d="M${330 + (i % 6) * 62} ${300 + Math.floor(i / 6) * 60} q22 24 0 46" ${stroke('#fff', 5)} opacity="0.55"/>`)}
      <circle cx="265" cy="355" r="22" fill="#fff"/><circle cx="262" cy="356" r="11" fill="${LINE}"/><path d="M190 400 q30 16 60 4" ${stroke(LINE, 7)}/>
      ${handwriting(chance, 'gills', 300, 120, 42, INK)}<path d="M340 135 L335 300" ${stroke(PENCIL, 5)}/>
      ${handwriting(chance, 'tail fin', 740, 170, 42, INK)}<path d="M810 190 L820 250" ${stroke(PENCIL, 5)}/>
      ${handwriting(chance, chance.pick(['scales keep it smooth', 'it breathes in water', 'it has no eyelids']), 220, 670, 46, INK)}`,
  }
}

/** Shells laid in rows, counted. */
export const shells: Drawing = (chance) => {
  const shell = (x: number, y: number) => {
    const colour = chance.pick(['#e7c9b0', '#d8a58a', '#c9b7a6', '#e9d8c2', '#b98f7a'])
    return `<g transform="translate(${x} ${y}) rotate(${chance.between(-25, 25)}) scale(${chance.between(0.8, 1.15)})"><path d="M0 50 Q-80 30 -62 -34 Q0 -80 62 -34 Q80 30 0 50 z" fill="${colour}" stroke="#6f5646" stroke-width="5"/>${times(5, (i) => `<path d="M0 48 L${-48 + i * 24} -44" ${stroke('#6f5646', 3)} opacity="0.6"/>`)}</g>`
  }
  return {
    paper: 'plain',
    content: `${ground('#d9c59b')}${times(15, (i) => shell(150 + (i % 5) * 175, 150 + Math.floor(i / 5) * 175))}
      <rect x="340" y="620" width="330" height="76" fill="#fffdf4"/>${handwriting(chance, '3 rows of 5', 370, 675, 48, LINE)}`,
  }
}

/** A gull over the marsh. */
export const gull: Drawing = (chance) => ({
  paper: 'plain',
  content: `<path d="M-20 520 q250 -60 520 0 t540 -30 v300 h-1080 z" fill="${chance.pick(GREENS)}" opacity="0.8"/><path d="M-20 600 q200 -40 400 0 t640 -20" ${stroke('#9cc4d4', 26)}/>
    <path d="M230 ${chance.between(190, 240)} q150 -90 270 60 q120 -150 280 -70 q-150 10 -220 130 q-60 60 -130 0 q-60 -120 -200 -120 z" fill="#fbfaf5" stroke="${LINE}" stroke-width="8" stroke-linejoin="round"/>
    <path d="M500 330 l-20 46 l52 -14 z" fill="#e6b24a" stroke="${LINE}" stroke-width="6"/><circle cx="482" cy="300" r="8" fill="${LINE}"/>
    ${times(9, () => `<path d="M${chance.between(30, 950)} ${chance.between(560, 700)} q6 -50 14 -70" ${stroke('#3f5a35', 6)}/>`)}
    ${handwriting(chance, chance.pick(['it stole my crust', 'a herring gull', 'flying over the marsh']), 120, 120, 48, INK)}`,
})
