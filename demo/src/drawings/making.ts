import { handwriting } from './handwriting.ts'
import { BLUES, CRAYONS, ground, INK, LINE, PENCIL, stroke, times, type Drawing } from './kit.ts'

export const bridge: Drawing = (chance) => {
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

export const beaker: Drawing = (chance) => {
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

export const bread: Drawing = (chance) => {
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

/** How long each bridge held: bars on squared paper. */
export const beamTest: Drawing = (chance) => ({
  paper: 'squared',
  content: `<path d="M156 90 V570 H900" ${stroke(INK, 7)}/>${times(4, (i) => {
    const high = Math.round(chance.between(1, 7)) * 52
    return `<rect x="${230 + i * 165}" y="${570 - high}" width="104" height="${high}" fill="${chance.pick(CRAYONS)}" opacity="0.85" stroke="${LINE}" stroke-width="5"/>${handwriting(chance, ['flat', 'arch', 'truss', 'beam'][i]!, 240 + i * 165, 625, 40, INK)}`
  })}${handwriting(chance, 'seconds with a tin on it', 230, 70, 44, INK)}`,
})

/** A lighthouse built from boxes and card, as it stands on the table. */
export const lighthouse: Drawing = (chance) => {
  const band = chance.pick(['#c9553f', '#2f5e8c', '#4c7a4f'])
  return {
    paper: 'plain',
    content: `${ground('#8b7b68')}<ellipse cx="520" cy="640" rx="330" ry="50" fill="#000" opacity="0.3"/><rect x="270" y="520" width="480" height="120" fill="#b99564" stroke="#6e5433" stroke-width="6"/><path d="M270 560 h480" ${stroke('#d9bd92', 10)}/>
      <path d="M410 520 L450 190 h120 L610 520 z" fill="#f1ece0" stroke="#6e5433" stroke-width="6"/>${times(3, (i) => `<path d="M${436 - i * 11} ${280 + i * 90} h${148 + i * 22} l6 46 h-${160 + i * 22} z" fill="${band}"/>`)}
      <rect x="455" y="130" width="110" height="62" fill="#f3d36b" stroke="#6e5433" stroke-width="6"/><path d="M440 130 L510 70 L580 130 z" fill="${band}" stroke="#6e5433" stroke-width="6"/>
      <rect x="490" y="450" width="44" height="70" fill="#5a4630"/><path d="M575 150 l210 -60 v110 z" fill="#f7e79a" opacity="0.7"/>`,
  }
}

/** Weaving on a card loom. */
export const weaving: Drawing = (chance) => {
  const wools = ['#c9553f', '#e0a83f', '#2a6f68', '#5a7fae', '#8a5a9a', '#f0e6d2']
  return {
    paper: 'plain',
    content: `${ground('#a08c74')}<rect x="220" y="60" width="560" height="600" fill="#d8b98c" stroke="#8c6b3f" stroke-width="6"/>${times(
      15,
      (row) => {
        const wool = chance.pick(wools)
        return times(13, (i) =>
          (i + row) % 2
            ? `<rect x="${248 + i * 39}" y="${100 + row * 34}" width="42" height="30" rx="13" fill="${wool}" stroke="#00000022" stroke-width="3"/>`
            : '',
        )
      },
    )}${times(13, (i) => `<path d="M${269 + i * 39} 66 V100 M${269 + i * 39} 612 V654" ${stroke('#f4ecd8', 7)}/>`)}`,
  }
}

/** A mosaic of cut paper. */
export const mosaic: Drawing = (chance) => {
  const [inner, outer] = [chance.pick(CRAYONS), chance.pick(['#2f5e8c', '#2a6f68', '#6a5a8a'])]
  return {
    paper: 'plain',
    content:
      times(228, (i) => {
        const [x, y] = [70 + (i % 19) * 46, 70 + Math.floor(i / 19) * 48]
        const far = Math.hypot(x - 490, y - 340)
        const colour = far < 110 ? '#e6b24a' : far < 210 ? inner : outer
        return `<rect x="${x + chance.between(-4, 4)}" y="${y + chance.between(-4, 4)}" width="38" height="38" fill="${colour}" opacity="${chance.between(0.75, 1).toFixed(2)}" transform="rotate(${chance.between(-6, 6).toFixed(1)} ${x} ${y})"/>`
      }) + handwriting(chance, 'a sun for a floor', 300, 690, 44, PENCIL),
  }
}
