/** Symbols a folder may carry; each is drawn by the client under the same name. */
export const FOLDER_SYMBOLS = [
  'waves', 'bridge', 'pot', 'wind', 'map', 'home-heart', 'leaf', 'book', 'abacus', 'star', 'flask', 'music',
  'pen', 'magnifier', 'palette', 'scissors', 'ball', 'run', 'globe', 'castle', 'snake', 'rocket', 'robot', 'bug',
  'fish', 'bird', 'paw', 'flower', 'tree', 'mountain', 'sun', 'moon', 'cloud', 'rain', 'snow', 'fire', 'heart', 'smile',
  'people', 'chat', 'theatre', 'film', 'camera', 'drum', 'guitar', 'calculator', 'ruler', 'shapes', 'puzzle', 'clock',
  'calendar', 'coin', 'apple', 'bread', 'house', 'car', 'train', 'boat', 'plane', 'bicycle', 'hammer', 'magnet', 'bulb',
  'newspaper', 'letter', 'trophy', 'flag', 'key', 'crown', 'hand', 'eye', 'ear', 'atom', 'stethoscope', 'recycle', 'web',
] as const // prettier-ignore
export type FolderSymbol = (typeof FOLDER_SYMBOLS)[number]

/** Symbols of pegs, one for each pupil of a class: things a five-year-old can name. */
export const PEG_SYMBOLS = [
  'fish', 'kite', 'umbrella', 'leaf', 'rocket', 'bell', 'apple', 'bicycle', 'boat', 'boot', 'butterfly', 'cactus',
  'candle', 'carrot', 'cat', 'cherries', 'clover', 'cloud', 'crown', 'dog', 'anchor', 'duck', 'elephant', 'feather',
  'flower', 'guitar', 'hat', 'heart', 'key', 'ladybird', 'lamp', 'moon', 'mushroom', 'owl', 'pear', 'piano', 'snail',
  'snowflake', 'spade', 'star', 'sun', 'teddy', 'tractor', 'train', 'tree', 'turtle', 'watering-can', 'whistle',
] as const // prettier-ignore
export type PegSymbol = (typeof PEG_SYMBOLS)[number]

/** The pigments pegs and folder spines are painted in. */
export const COLOURS = ['aubergine', 'ochre', 'verdigris', 'clay', 'sea', 'moss', 'indigo', 'madder'] as const
export type Colour = (typeof COLOURS)[number]
/** Each pigment as it is painted on screen and on paper. */
export const PIGMENTS: Record<Colour, string> = {
  aubergine: '#54284F', ochre: '#B9741A', verdigris: '#2A6F68', clay: '#A9452F', sea: '#2F5E8C', moss: '#5F6B2D', indigo: '#3B3F7A', madder: '#93344F',
} // prettier-ignore

/** A neutral start: lines of the curriculum every primary school has. */
export const FIRST_STRANDS = [
  'Reading and writing',
  'Numbers',
  'Science',
  'Art and making',
  'Music',
  'Our world',
  'Moving',
  'Being me',
]
/** Folders to begin a class with; all can be changed. */
export const READY_FOLDERS: readonly { name: string; symbol: FolderSymbol; colour: Colour; strand: string }[] = [
  { name: 'Stories and poems', symbol: 'pen', colour: 'aubergine', strand: 'Reading and writing' },
  { name: 'Number work', symbol: 'abacus', colour: 'sea', strand: 'Numbers' },
  { name: 'Looking closely', symbol: 'magnifier', colour: 'moss', strand: 'Science' },
  { name: 'Made by hand', symbol: 'pot', colour: 'clay', strand: 'Art and making' },
  { name: 'Songs and sounds', symbol: 'music', colour: 'indigo', strand: 'Music' },
  { name: 'Out and about', symbol: 'map', colour: 'verdigris', strand: 'Our world' },
]
