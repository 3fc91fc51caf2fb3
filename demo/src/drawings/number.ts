import { handwriting } from './handwriting.ts'
import { BLUES, CRAYONS, INK, LINE, stroke, times, type Drawing } from './kit.ts'

export const sums: Drawing = (chance) => ({
  paper: 'squared',
  content: Array.from({ length: 8 }, (_, i) => {
    const a = Math.round(chance.between(11, 60))
    const b = Math.round(chance.between(7, 39))
    const x = 120 + (i % 2) * 430
    const y = 170 + Math.floor(i / 2) * 150
    return `${handwriting(chance, `${a} + ${b} = ${a + b}`, x, y, 62, '#2b3350')}<path d="M${x + 356} ${y - 20} l14 18 l30 -46" ${stroke('#4c7a4f', 7)}/>`
  }).join(''),
})

/** Ten-frames with counters. */
export const tenFrames: Drawing = (chance) => ({
  paper: 'plain',
  content: times(4, (frame) => {
    const [x0, y0] = [70 + (frame % 2) * 470, 90 + Math.floor(frame / 2) * 320]
    const full = Math.round(chance.between(3, 10))
    const colour = chance.pick([...CRAYONS, ...BLUES])
    return `${times(10, (i) => {
      const [x, y] = [x0 + (i % 5) * 78, y0 + Math.floor(i / 5) * 78]
      return `<rect x="${x}" y="${y}" width="78" height="78" fill="#fffdf4" stroke="${LINE}" stroke-width="5"/>${i < full ? `<circle cx="${x + 39 + chance.between(-4, 4)}" cy="${y + 39}" r="27" fill="${colour}"/>` : ''}`
    })}${handwriting(chance, `${full} + ${10 - full} = 10`, x0 + 40, y0 + 225, 50, INK)}`
  }),
})

/** Clock faces with the time in words. */
export const clockFaces: Drawing = (chance) => ({
  paper: 'plain',
  content: times(4, (i) => {
    const [x, y] = [250 + (i % 2) * 480, 190 + Math.floor(i / 2) * 340]
    const hour = Math.round(chance.between(1, 12))
    const half = chance.next() < 0.5
    const turn = (hour % 12) * 30 + (half ? 15 : 0)
    return `<circle cx="${x}" cy="${y}" r="130" fill="#fffdf4" stroke="${LINE}" stroke-width="8"/>${times(12, (n) => `<path d="M${x} ${y - 108} v-16" transform="rotate(${n * 30} ${x} ${y})" ${stroke(LINE, 7)}/>`)}<path d="M${x} ${y} V${y - 66}" transform="rotate(${turn} ${x} ${y})" ${stroke('#c9553f', 12)}/><path d="M${x} ${y} V${y - 100}" transform="rotate(${half ? 180 : 0} ${x} ${y})" ${stroke('#2f5e8c', 8)}/>${handwriting(chance, half ? `half past ${hour}` : `${hour} o’clock`, x - 110, y + 175, 42, INK)}`
  }),
})

/** A butterfly painted on one half and folded over. */
export const symmetry: Drawing = (chance) => {
  const wing = times(9, () => {
    const [x, y] = [chance.between(60, 330), chance.between(-230, 200)]
    return `<circle cx="${x}" cy="${y}" r="${chance.between(18, 60)}" fill="${chance.pick([...CRAYONS, ...BLUES, '#e6b24a'])}" opacity="0.85"/>`
  })
  const half = `<path d="M0 -60 q160 -260 340 -190 q60 150 -90 240 q110 60 70 210 q-190 70 -320 -90 z" fill="#f0d9ae" stroke="${LINE}" stroke-width="7"/>${wing}`
  return {
    paper: 'plain',
    content: `<g transform="translate(500 350)">${half}<g transform="scale(-1 1)">${half}</g><path d="M0 -190 V230" stroke-dasharray="16 12" ${stroke(LINE, 6)}/></g>`,
  }
}

/** Pizzas cut in equal parts. */
export const fractions: Drawing = (chance) => ({
  paper: 'plain',
  content:
    times(3, (i) => {
      const parts = [2, 4, 8][i]!
      const taken = Math.round(chance.between(1, parts - 1))
      const x = 190 + i * 305
      const slice = (n: number) => {
        const [a, b] = [n, n + 1].map((k) => (k / parts) * 2 * Math.PI - Math.PI / 2) as [
          number,
          number,
        ]
        return `<path d="M${x} 300 L${x + 125 * Math.cos(a)} ${300 + 125 * Math.sin(a)} A125 125 0 0 1 ${x + 125 * Math.cos(b)} ${300 + 125 * Math.sin(b)} z" fill="${n < taken ? '#d9704a' : '#f0d9ae'}" stroke="${LINE}" stroke-width="7"/>`
      }
      return `${times(parts, slice)}${handwriting(chance, `${taken}/${parts}`, x - 50, 520, 64, INK)}`
    }) + handwriting(chance, 'how much is eaten?', 280, 640, 48, INK),
})

/** Tallies of what went past the window. */
export const tallyChart: Drawing = (chance) => ({
  paper: 'squared',
  content: times(4, (row) => {
    const count = Math.round(chance.between(3, 14))
    const y = 150 + row * 140
    return `${handwriting(chance, ['cars', 'bikes', 'dogs', 'gulls'][row]!, 110, y, 54, INK)}${times(
      count,
      (i) => {
        const x = 330 + i * 34 + Math.floor(i / 5) * 18
        return i % 5 === 4
          ? `<path d="M${x - 150} ${y + 6} L${x - 10} ${y - 56}" ${stroke(INK, 8)}/>`
          : `<path d="M${x} ${y + 4} v-58" ${stroke(INK, 8)}/>`
      },
    )}${handwriting(chance, `${count}`, 880, y, 56, '#c9553f')}`
  }),
})

/** A times table with its pattern coloured in. */
export const hundredSquare: Drawing = (chance) => {
  const step = chance.pick([3, 4, 6, 7, 9])
  return {
    paper: 'plain',
    content:
      times(100, (i) => {
        const [x, y] = [200 + (i % 10) * 60, 40 + Math.floor(i / 10) * 58]
        return `<rect x="${x}" y="${y}" width="60" height="58" fill="${(i + 1) % step === 0 ? '#f0c46a' : '#fffdf4'}" stroke="${LINE}" stroke-width="3"/>${handwriting(chance, `${i + 1}`, x + 8, y + 42, 30, INK)}`
      }) + handwriting(chance, `counting in ${step}s`, 320, 690, 48, INK),
  }
}
