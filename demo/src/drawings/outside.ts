import { handwriting } from './handwriting.ts'
import { BLUES, CRAYONS, GREENS, INK, LINE, stroke, times, type Drawing } from './kit.ts'

export const leaves: Drawing = (chance) => ({
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

export const boat: Drawing = (chance) => ({
  paper: 'plain',
  content: `<path d="M-20 520 q80 -50 160 0 t160 0 t160 0 t160 0 t160 0 t160 0 t160 0 v260 h-1120 z" fill="${chance.pick(BLUES)}" opacity="0.75"/>
    <path d="M260 470 h460 l-80 120 h-300 z" fill="${chance.pick(CRAYONS)}" stroke="${LINE}" stroke-width="8"/><path d="M490 460 V120" ${stroke('#6b5030', 14)}/>
    <path d="M505 130 q${chance.between(180, 260)} 150 ${chance.between(150, 210)} 310 h-200 z" fill="#f3e3bd" stroke="${LINE}" stroke-width="7"/><path d="M475 160 q-150 130 -170 280 h170 z" fill="#e6b24a" stroke="${LINE}" stroke-width="7"/>
    <circle cx="850" cy="140" r="64" fill="#e6b24a"/>${handwriting(chance, 'it floats!', 120, 130, 54, LINE)}`,
})

/** A kite in the wind. */
export const kite: Drawing = (chance) => ({
  paper: 'plain',
  content: `<path d="M-20 600 q260 -70 520 0 t540 0 v180 h-1080 z" fill="${chance.pick(GREENS)}"/><g transform="translate(${chance.between(480, 640)} 230) rotate(${chance.between(-25, 25)})"><path d="M0 -170 L110 0 L0 190 L-110 0 z" fill="${chance.pick(CRAYONS)}" stroke="${LINE}" stroke-width="8"/><path d="M0 -170 V190 M-110 0 H110" ${stroke(LINE, 6)}/><path d="M0 190 q60 60 -10 110 t-40 110" ${stroke(LINE, 5)}/>${times(3, (i) => `<path d="M${-14 - i * 10} ${250 + i * 50} l-26 -16 v32 z m0 0 l26 -16 v32 z" fill="${chance.pick(BLUES)}"/>`)}</g>
    <circle cx="190" cy="470" r="34" fill="#e9c3a0" stroke="${LINE}" stroke-width="6"/><path d="M190 505 v100 M190 530 L260 480 M190 605 l-30 70 M190 605 l30 70" ${stroke(LINE, 9)}/>${handwriting(chance, 'me and my kite', 330, 690, 50, '#fbf7ee')}`,
})

/** A bean in four weeks. */
export const seedDiary: Drawing = (chance) => ({
  paper: 'plain',
  content:
    times(4, (i) => {
      const x = 130 + i * 245
      const high = 30 + i * chance.between(70, 100)
      return `<path d="M${x - 70} 480 h140 l-22 130 h-96 z" fill="#b7644a" stroke="${LINE}" stroke-width="7"/><path d="M${x - 62} 490 h124 l-4 22 h-116 z" fill="#4a3526"/>${i > 0 ? `<path d="M${x} 485 q${chance.between(-18, 18)} ${-high / 2} 0 ${-high}" ${stroke('#4c7a4f', 10)}/>${times(i * 2, (n) => `<ellipse cx="${x + (n % 2 ? 34 : -34)}" cy="${485 - (high * (n + 1)) / (i * 2 + 1)}" rx="34" ry="16" fill="${chance.pick(GREENS)}" transform="rotate(${n % 2 ? -24 : 24} ${x} ${485 - high / 2})"/>`)}` : ''}${handwriting(chance, `week ${i + 1}`, x - 65, 670, 40, INK)}`
    }) + handwriting(chance, 'my bean diary', 330, 90, 52, INK),
})
