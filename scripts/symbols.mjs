// Writes client/src/kit/symbols.generated.ts: the paths of just those symbols Nibquill uses, so that no icon font is sent.
import * as mdi from '@mdi/js'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { ROOT } from './setup.mjs'

/** Our word for a symbol, and the drawing it takes. */
const SYMBOLS = {
  // folders
  waves: 'Waves', bridge: 'Bridge', pot: 'Pot', wind: 'WeatherWindy', map: 'MapOutline', 'home-heart': 'HomeHeart', leaf: 'Leaf', book: 'BookOpenVariant',
  abacus: 'Abacus', star: 'Star', flask: 'Flask', music: 'Music', pen: 'FountainPenTip', magnifier: 'Magnify', palette: 'Palette', scissors: 'ContentCut', ball: 'Soccer', run: 'Run', globe: 'Earth',
  castle: 'Castle', snake: 'Snake', robot: 'Robot', bug: 'Bug', bird: 'Bird', paw: 'Paw', mountain: 'Terrain', rain: 'WeatherPouring', snow: 'Snowman', fire: 'Fire', smile: 'EmoticonHappyOutline',
  chat: 'ChatOutline', theatre: 'DramaMasks', film: 'Filmstrip', drum: 'MusicCircle', calculator: 'Calculator', ruler: 'RulerSquare', shapes: 'Shape', puzzle: 'Puzzle', calendar: 'CalendarBlank', coin: 'CashMultiple',
  bread: 'BreadSlice', house: 'Home', car: 'Car', plane: 'Airplane', hammer: 'Hammer', magnet: 'Magnet', bulb: 'LightbulbOn', newspaper: 'Newspaper', letter: 'Email', trophy: 'Trophy', flag: 'Flag', hand: 'HandBackLeft',
  ear: 'EarHearing', atom: 'Atom', stethoscope: 'Stethoscope', recycle: 'Recycle', web: 'SpiderWeb',
  // pegs
  fish: 'Fish', kite: 'Kite', umbrella: 'Umbrella', rocket: 'Rocket', bell: 'Bell', apple: 'FoodApple', bicycle: 'Bicycle', boat: 'SailBoat', boot: 'ShoeSneaker',
  butterfly: 'Butterfly', cactus: 'Cactus', candle: 'Candle', carrot: 'Carrot', cat: 'Cat', cherries: 'FruitCherries', clover: 'Clover', cloud: 'Cloud', crown: 'Crown',
  dog: 'Dog', anchor: 'Anchor', duck: 'Duck', elephant: 'Elephant', feather: 'Feather', flower: 'Flower', guitar: 'GuitarAcoustic', hat: 'HatFedora', heart: 'Heart',
  key: 'Key', ladybird: 'Ladybug', lamp: 'Lamp', moon: 'MoonWaningCrescent', mushroom: 'Mushroom', owl: 'Owl', pear: 'FruitPear', piano: 'Piano', snail: 'Snail',
  snowflake: 'Snowflake', spade: 'Shovel', sun: 'WhiteBalanceSunny', teddy: 'TeddyBear', tractor: 'Tractor', train: 'Train', tree: 'PineTree', turtle: 'Turtle',
  'watering-can': 'WateringCan', whistle: 'Whistle',
  // the interface
  camera: 'Camera', 'camera-turn': 'CameraFlip', pictures: 'ImageMultiple', back: 'ArrowLeft', forward: 'ArrowRight', next: 'ChevronRight', previous: 'ChevronLeft', down: 'ChevronDown',
  close: 'Close', check: 'Check', again: 'Reload', undo: 'Undo', 'in-folder': 'FolderCheckOutline', folder: 'FolderOutline', tray: 'TrayFull', 'tray-out': 'TrayArrowUp', 'tray-in': 'TrayArrowDown', layers: 'LayersOutline',
  desk: 'Desk', portfolio: 'BookOpenPageVariantOutline', class: 'AccountGroupOutline', tasks: 'ClipboardTextOutline', year: 'CalendarMonthOutline', people: 'AccountSwitchOutline',
  listen: 'VolumeHigh', 'stop-listening': 'Stop', quill: 'Feather', pencil: 'Pencil', bin: 'TrashCanOutline', zoom: 'MagnifyPlusOutline', 'zoom-out': 'MagnifyMinusOutline', fit: 'FitToPageOutline',
  message: 'MessageTextOutline', download: 'Download', print: 'BookArrowDownOutline', link: 'LinkVariant', 'link-off': 'LinkVariantOff', out: 'ExitToApp', retake: 'CameraRetake', plus: 'Plus', minus: 'Minus',
  clock: 'ClockOutline', alert: 'AlertCircleOutline', help: 'HelpCircleOutline', up: 'ArrowUp', 'down-arrow': 'ArrowDown', pick: 'BookmarkPlusOutline', picked: 'BookmarkCheck', eye: 'EyeOutline', eyeoff: 'EyeOffOutline', copy: 'ContentCopy', home: 'HomeOutline', card: 'CardAccountDetailsOutline', menu: 'Menu', lens: 'Magnify',
  microphone: 'Microphone', play: 'Play', pause: 'Pause', 'stop-recording': 'StopCircle', grip: 'DragVertical', edit: 'PencilOutline', mail: 'EmailOutline', nudge: 'HandWaveOutline', tick: 'CheckboxMarkedOutline', untick: 'CheckboxBlankOutline', file: 'FileDocumentOutline', upload: 'TrayArrowUp', sort: 'Sort', 'put-away': 'ArchiveArrowDownOutline', 'take-out': 'ArchiveArrowUpOutline', consent: 'FileSign', school: 'SchoolOutline', lock: 'LockOutline', duplicate: 'ContentDuplicate', unit: 'ViewListOutline', list: 'FormatListBulleted', 'door-open': 'DoorOpen', 'door-shut': 'DoorClosed',
  // making
  tidy: 'Broom', straighten: 'PerspectiveMore', brighten: 'Brightness6', turn: 'RotateRight', 'turn-left': 'RotateLeft', trim: 'Crop', redo: 'Redo', 'as-it-was': 'ImageRefreshOutline', friends: 'AccountMultiplePlusOutline', flat: 'FileImageOutline', 'no-network': 'CloudOffOutline',
} // prettier-ignore

const lines = Object.entries(SYMBOLS).map(([name, drawing]) => {
  const drawn = mdi[`mdi${drawing}`]
  if (!drawn) throw new Error(`no drawing called ${drawing} for ${name}`)
  return `  '${name}': '${drawn}',`
})
const text = `// Made by \`npm run symbols\` from @mdi/js (Apache License 2.0). Do not edit.\nexport const SYMBOLS = {\n${lines.join('\n')}\n} as const\nexport type SymbolName = keyof typeof SYMBOLS\n`
writeFileSync(path.join(ROOT, 'client/src/kit/symbols.generated.ts'), text)

// The printed cards draw the pegs too.
const looks = readFileSync(path.join(ROOT, 'core/src/folders/looks.ts'), 'utf8')
const pegs = [.../PEG_SYMBOLS = \[([^\]]+)\]/.exec(looks)[1].matchAll(/'([\w-]+)'/g)].map(([, name]) => name)
const pegLines = pegs.map((name) => `  '${name}': '${mdi[`mdi${SYMBOLS[name]}`]}',`)
const pegText = `import type { PegSymbol } from '@nibquill/core'\n\n// Made by \`npm run symbols\` from @mdi/js (Apache License 2.0). Do not edit.\nexport const PEG_DRAWINGS: Record<PegSymbol, string> = {\n${pegLines.join('\n')}\n}\n`
writeFileSync(path.join(ROOT, 'server/src/print/pegs.generated.ts'), pegText)
console.log(`${lines.length} symbols written, ${pegs.length} of them pegs`)
