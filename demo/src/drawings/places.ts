import { handwriting } from './handwriting.ts'
import { GREENS, INK, LINE, PENCIL, stroke, times, type Drawing } from './kit.ts'

export const map: Drawing = (chance) => {
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

/** An island with a key. */
export const islandMap: Drawing = (chance) => ({
  paper: 'squared',
  content: `<path d="M180 380 q40 -220 300 -230 q${chance.between(240, 300)} 10 300 200 q-10 220 -290 240 q-300 10 -310 -210 z" fill="#e3cf9a" stroke="${LINE}" stroke-width="8"/><path d="M260 400 q60 -130 190 -140 q150 10 170 120 q-40 130 -190 140 q-150 0 -170 -120 z" fill="${chance.pick(GREENS)}" opacity="0.7"/>
    <path d="M${chance.between(380, 460)} 330 l50 -90 l50 90 z" fill="#8d8378" stroke="${LINE}" stroke-width="6"/><path d="M640 420 l40 40 m0 -40 l-40 40" ${stroke('#c9553f', 12)}/><path d="M300 470 q120 60 250 0 t90 -30" ${stroke(LINE, 5)} stroke-dasharray="14 14"/>
    <rect x="800" y="420" width="180" height="220" fill="#fffdf4" stroke="${LINE}" stroke-width="5"/>${handwriting(chance, 'key', 855, 470, 40, INK)}<path d="M820 520 l24 24 m0 -24 l-24 24" ${stroke('#c9553f', 9)}/>${handwriting(chance, 'find', 866, 545, 36, INK)}<path d="M818 600 l14 -26 l14 26 z" fill="#8d8378"/>${handwriting(chance, 'hill', 866, 605, 36, INK)}`,
})

/** The way to school with what one passes. */
export const wayToSchool: Drawing = (chance) => {
  const stops = ['home', 'post box', 'bridge', 'bakery', 'school']
  return {
    paper: 'plain',
    content: `<path d="M110 600 q150 -20 180 -160 t230 -120 t330 -160" ${stroke('#c9ae7a', 34)}/>${stops
      .map((stop, i) => {
        const [x, y] = [
          [110, 600],
          [270, 470],
          [430, 330],
          [640, 290],
          [860, 170],
        ][i]!
        return `<circle cx="${x}" cy="${y}" r="24" fill="${chance.pick(['#d9704a', '#5a7fae', '#d8a63c', '#4c7a4f'])}" stroke="${LINE}" stroke-width="6"/>${handwriting(chance, stop, x! - 40, y! + 80, 40, INK)}`
      })
      .join(
        '',
      )}${handwriting(chance, `${Math.round(chance.between(6, 25))} minutes on foot`, 90, 120, 50, PENCIL)}`,
  }
}

/** A week of weather. */
export const weatherWeek: Drawing = (chance) => {
  const sky = {
    sun: `<circle r="42" fill="#e6b24a"/>${times(8, (i) => `<path d="M0 -56 V-76" transform="rotate(${i * 45})" ${stroke('#e6b24a', 9)}/>`)}`,
    rain: `<path d="M-60 0 q0 -44 44 -40 q20 -40 60 -12 q40 0 30 50 z" fill="#8fa3b5"/>${times(4, (i) => `<path d="M${-40 + i * 28} 20 l-10 44" ${stroke('#3f7fae', 8)}/>`)}`,
    cloud: `<path d="M-70 30 q0 -50 50 -46 q24 -50 74 -16 q44 2 30 62 z" fill="#c3ccd4"/>`,
    wind: times(
      3,
      (i) => `<path d="M-70 ${-30 + i * 30} q60 -26 110 0 q20 20 -10 26" ${stroke('#5a93b8', 9)}/>`,
    ),
  }
  return {
    paper: 'plain',
    content:
      times(5, (i) => {
        const x = 45 + i * 186
        return `<rect x="${x}" y="150" width="170" height="330" fill="#fbf7ee" stroke="${LINE}" stroke-width="5"/>${handwriting(chance, ['Mon', 'Tue', 'Wed', 'Thu', 'Fri'][i]!, x + 36, 215, 46, INK)}<g transform="translate(${x + 85} 320)">${sky[chance.pick(['sun', 'rain', 'cloud', 'wind'] as const)]}</g>${handwriting(chance, `${Math.round(chance.between(4, 16))} deg`, x + 26, 460, 40, INK)}`
      }) + handwriting(chance, 'our weather week', 300, 110, 52, PENCIL),
  }
}

/** Somebody's life so far, on a line. */
export const timeline: Drawing = (chance) => ({
  paper: 'plain',
  content: `<path d="M60 380 H930 m-30 -24 l30 24 l-30 24" ${stroke(LINE, 10)}/>${times(5, (i) => {
    const x = 120 + i * 175
    const up = i % 2 === 0
    return `<path d="M${x} 380 V${up ? 270 : 490}" ${stroke(PENCIL, 6)}/><circle cx="${x}" cy="380" r="16" fill="${chance.pick(['#d9704a', '#5a7fae', '#4c7a4f'])}"/>${handwriting(chance, ['born', 'walked', 'sister!', 'school', 'now'][i]!, x - 60, up ? 250 : 540, 44, INK)}`
  })}`,
})
