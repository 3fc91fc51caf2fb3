export { LANGUAGE, PSEUDO } from './language'
export { namesOf, wordsOf } from './wordsOf'
